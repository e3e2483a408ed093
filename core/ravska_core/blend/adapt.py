"""Adapting a blend to a meat, a fire, what cannot be eaten and what is not at hand.

The rules are common practice without a source; each change says why, and any of them can be left out.
"""

from collections.abc import Set as AbstractSet
from dataclasses import dataclass
from functools import partial

from ravska_core.blend.adapt_rules import RULES, SUGAR_CAP, Bench, Change
from ravska_core.blend.findings import SAID_FIRE
from ravska_core.blend.lines import FIRES, Blend, Line
from ravska_core.blend.parts import check_blend, parts_of
from ravska_core.blend.swap import Swapped, swaps
from ravska_core.catalogue import ALLERGENS, catalogue
from ravska_core.working import BadInput

MEATS = ("poultry", "pork", "beef", "lamb", "fish", "game")


@dataclass(frozen=True)
class Adapted:
    """The proposed lines, the changes that led to them, and what to mind without a change."""

    lines: tuple[Line, ...]
    changes: tuple[Change, ...]
    notes: tuple[str, ...] = ()


def _hold_salt(bench: Bench, salt: float) -> None:
    """Keep a dry blend as salty as it was: it goes on by surface, so what leaves it must not make the meat saltier."""
    salts = bench.find(lambda g: g.ingredient.nacl > 0.9)
    now = bench.share(lambda g: g.ingredient.nacl > 0.9)
    if not (bench.dry and salts and 0 < salt < now - 0.02):
        return
    factor = salt * (1 - now) / (now * (1 - salt))

    def hold() -> None:
        for at in salts:
            bench.scale(at, factor)

    text = f"salt: held near {salt * 100:.0f} % of the blend"
    bench.do(Change("hold-salt", text, "the coat goes on by surface, so less of the rest would make it saltier"), hold)


def _stand_in(line: Line, without: AbstractSet[str], lacking: AbstractSet[str]) -> Swapped | None:
    return next(
        (
            found
            for found in swaps(line)
            if found.kind in ("stand-in", "nearest", "form")
            and found.line.grind not in lacking
            and not without & set(catalogue().grinds[found.line.grind].ingredient.allergens)
        ),
        None,
    )


def _leave_out(bench: Bench, without: AbstractSet[str], lacking: AbstractSet[str]) -> None:
    """Put something else where an ingredient cannot be eaten or is not at hand; take it out where nothing does."""
    gone: list[int] = []
    for at, line in enumerate(bench.lines):
        if line.blend is not None:
            inside = {a for p in parts_of([line]) for g, _ in p.leaves for a in g.ingredient.allergens}
            for allergen in sorted(inside & without):
                reason = f"unfold {line.blend.name or 'it'} or adapt that blend first"
                text = f"{line.blend.name or 'the blend inside'} still holds {allergen}"
                bench.do(Change(f"inside-{at}-{allergen}", text, reason), lambda: None)
            continue
        grind = bench.grind(line)
        if grind is None:
            continue
        held = sorted(without & set(grind.ingredient.allergens))
        if not held and line.grind not in lacking:
            continue
        reason = f"without {', '.join(held)}" if held else "not at hand"
        found = _stand_in(line, without, lacking)
        name = grind.ingredient.name.lower()
        if found is None:
            bench.do(Change(f"without-{line.grind}", f"{name} out", reason), partial(gone.append, at))
        else:
            bench.do(
                Change(f"without-{line.grind}", f"{found.name} in {name}’s place", f"{reason}; {found.reason}"),
                partial(bench.take, at, found.line),
            )
    for at in reversed(gone):
        del bench.lines[at]


def adapt(
    blend: Blend,
    meat: str = "",
    fire: str = "",
    without: AbstractSet[str] = frozenset(),
    lacking: AbstractSet[str] = frozenset(),
    skip: AbstractSet[str] = frozenset(),
) -> Adapted:
    """Propose a branch of a blend for a meat, a fire, what cannot be eaten and what is not at hand.

    Parameters
    ----------
    without : set
        Allergens that must not be in it.
    lacking : set
        Grinds that are not at hand.
    skip : set
        Changes by id that are not wanted; they are listed but not made.

    Raises
    ------
    BadInput
        At ``meat``, ``fire`` or ``without`` for a word that is not known, at ``lines`` for an empty blend.
    """
    if meat and meat not in MEATS:
        raise BadInput("meat", f"A meat is one of {', '.join(MEATS)}.")
    if fire and fire not in FIRES:
        raise BadInput("fire", f"A fire is one of {', '.join(FIRES)}.")
    for allergen in without:
        if allergen not in ALLERGENS:
            raise BadInput("without", f"“{allergen}” is none I know; choose from {', '.join(ALLERGENS)}.")
    check_blend(blend)
    if not blend.lines:
        raise BadInput("lines", "There is nothing in this blend yet; add a first ingredient.")
    bench = Bench(blend, skip, meat, fire)
    salt = bench.share(lambda g: g.ingredient.nacl > 0.9)
    _leave_out(bench, without, lacking)
    if bench.lines:
        for rule in RULES:
            rule(bench)
        _hold_salt(bench, salt)
    notes: tuple[str, ...] = ()
    if bench.kind == "glaze" and fire in SUGAR_CAP:
        said = SAID_FIRE[fire]
        notes = (f"A glaze is sugar, and {said} burns it: brush it on for the last minutes, away from the worst heat.",)
    return Adapted(tuple(bench.lines), tuple(bench.changes), notes)
