"""Values in the book: what was typed, what it was read as, and the number of the format, so that no parser reads twice.

A method, a bought blend's label and an injection are stored as ``{"format", "typed", "value"}``; the value is what the
core was given when it was typed. A value of none was never read: it is refused at its field until it is typed anew.
"""

from collections.abc import Mapping, Sequence
from dataclasses import asdict
from typing import Any

from ravska_core.blend import AsRead, Label, MethodStep, parse_label, parse_lasts_s, parse_reduction
from ravska_core.catalogue import Known
from ravska_core.coat import BathWeighed, Injection, bath_weighed_of, injection_of
from ravska_core.heat import Cooker, Phase, find_cooker
from ravska_core.measure import Amount
from ravska_core.working import BadInput

FORMAT = 1
"""Of what is written now; a book of a later format is not read as if it were this one."""

Stored = Mapping[str, Any]


def stored(typed: Any, value: Any) -> dict[str, Any]:
    """Return what was typed with what it was read as."""
    return {"format": FORMAT, "typed": typed, "value": value}


def _value(of: Stored, field: str) -> Any:
    if of["format"] != FORMAT:
        raise BadInput(field, "This was written by a later Ravska; open the book with that one.")
    if of["value"] is None:
        raise BadInput(field, "This could not be read when the book was carried over; write it again.")
    return of["value"]


def read_steps(steps: Sequence[Mapping[str, Any]]) -> list[dict[str, float]]:
    """Read the steps of a method as typed: the share each drives off, and how long it lasts [s].

    Raises
    ------
    BadInput
        At ``method.N.…`` for what cannot be read.
    """
    found = []
    for at, step in enumerate(steps):
        try:
            by = parse_reduction(step["by"]) if step.get("by") and step["do"] == "simmer" else 0.0
            lasts_s = parse_lasts_s(step["lasts"]) if step.get("lasts") else 0.0
        except BadInput as refusal:
            raise refusal.under(f"method.{at}") from refusal
        found.append({"by": by, "lasts_s": lasts_s})
    return found


def _steps(
    steps: Sequence[Mapping[str, Any]], values: Sequence[Mapping[str, float]], keys: Sequence[str]
) -> tuple[MethodStep, ...]:
    """Return a method as the core takes it; its steps name lines by key, and a line that is gone is left out."""
    found = []
    for step, value in zip(steps, values, strict=True):
        of = tuple(place for key in step.get("of", ()) for place, line in enumerate(keys) if line == key)
        if step.get("of") and not of:  # all it was about is gone; the others keep their places
            found.append(MethodStep("note", note=step.get("note", "")))
            continue
        found.append(
            MethodStep(step["do"], of, step.get("to", ""), value["by"], value["lasts_s"], step.get("note", ""))
        )
    return tuple(found)


def method_of(steps: Sequence[Mapping[str, Any]], keys: Sequence[str]) -> tuple[MethodStep, ...]:
    """Read a method as typed.

    Raises
    ------
    BadInput
        At ``method.N.…`` for what cannot be read.
    """
    return _steps(steps, read_steps(steps), keys)


def stored_method(steps: Sequence[Mapping[str, Any]]) -> dict[str, Any]:
    """Return a method as the book holds it; `BadInput` as `method_of`."""
    return stored(list(steps), read_steps(steps))


def no_method() -> dict[str, Any]:
    """Return the method of a blend that has none."""
    return stored([], [])


def method_from(book: Stored, keys: Sequence[str]) -> tuple[MethodStep, ...]:
    """Return a method of the book as the core takes it."""
    return _steps(book["typed"], _value(book, "method"), keys)


def label_of(typed: Mapping[str, Any] | None) -> Label | None:
    """Read a bought blend's label as typed.

    Raises
    ------
    BadInput
        At ``label.…`` for what cannot be read.
    """
    if typed is None:
        return None
    try:
        stated = tuple((int(one["place"]), float(one["share"])) for one in typed.get("stated", ()))
        return parse_label(
            typed["portion"], typed["sodium"], typed["sodium_as"], typed["sugars"], typed["fat"], typed["rule"],
            typed.get("minor_from"), stated,
        )  # fmt: skip
    except BadInput as refusal:
        raise refusal.under("label") from refusal


def stored_label(typed: Mapping[str, Any] | None) -> dict[str, Any] | None:
    """Return a label as the book holds it; `BadInput` as `label_of`."""
    label = label_of(typed)
    return None if label is None else stored(typed, asdict(label))


def label_from(book: Stored | None) -> Label | None:
    """Return a label of the book as the core takes it."""
    if book is None:
        return None
    value = _value(book, "label.portion")
    return Label(**{**value, "stated": tuple((place, share) for place, share in value["stated"])})


def stored_injection(typed: Mapping[str, Any]) -> dict[str, Any]:
    """Return an injection as the book holds it: nothing where all of it is as usual.

    Raises
    ------
    BadInput
        At the key of what cannot be read.
    """
    return stored(dict(typed), asdict(injection_of(typed))) if typed else {}


def injection_from(book: Stored) -> Injection:
    """Return an injection of the book as the core takes it."""
    if not book:
        return Injection()
    value = dict(_value(book, "injection"))
    value["sites"] = tuple((x, y) for x, y in value["sites"])
    value["used"] = Amount(**value["used"]) if value["used"] else None
    return Injection(**value)


def stored_weighed(typed: Mapping[str, Any]) -> dict[str, Any]:
    """Return what was weighed of a bath as the book holds it: nothing where nobody did.

    Raises
    ------
    BadInput
        At the key of what cannot be read.
    """
    return stored(dict(typed), asdict(bath_weighed_of(typed))) if typed else {}


def weighed_from(book: Stored) -> BathWeighed | None:
    """Return what was weighed of a bath as the core takes it."""
    if not book:
        return None
    value = dict(_value(book, "weighed"))
    for key in ("used", "left"):
        value[key] = Amount(**value[key]) if value[key] else None
    return BathWeighed(**value)


def phases_from(rows: Sequence[Stored]) -> tuple[tuple[Phase, ...], tuple[Cooker, ...]]:
    """Return phases of the book as the core takes them, with the cooker of each."""
    phases, cookers = [], []
    for row in rows:
        value = _value(row, "phases")
        phases.append(
            Phase(**{**value, "sears_s": tuple(value["sears_s"]), "threaded": tuple(value.get("threaded", ()))})
        )
        cookers.append(find_cooker(row["typed"].get("cooker", ""), value["surround"]))
    return tuple(phases), tuple(cookers)


def typed_of(book: Stored) -> Any:
    """Return what was typed of a method, a label or an injection."""
    return book["typed"] if book else {}


def stored_reading(read: AsRead) -> dict[str, Any]:
    """Return what a kept line was read with as the book holds it."""
    return {"format": FORMAT, "mass_g": read.mass_g, "known": dict(read.known)}


def known_from(book: Stored | None) -> Known:
    """Return what was known of a line when it was kept; nothing for one that goes by today's tables."""
    if not book:
        return ()
    return tuple((name, tuple(value) if isinstance(value, list) else value) for name, value in book["known"].items())
