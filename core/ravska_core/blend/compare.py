"""Two blends compared: what came in, what went out, and how what they come to moved, in words."""

from dataclasses import dataclass

from ravska_core.blend.reading import BlendReading
from ravska_core.blend.scales import Scale
from ravska_core.working import say

_MATTERS = {
    "salt": 0.5, "sugar": 0.5, "heat": 0.25, "sour": 0.1, "savoury": 0.05, "smoke": 0.1, "herb": 0.15,
}  # fmt: skip

_SHARE_MATTERS = 1.0


@dataclass(frozen=True)
class Row:
    """A line of either blend: its name and its share before and after [%], None where it is not there."""

    name: str
    before: float | None
    after: float | None


@dataclass(frozen=True)
class Difference:
    """How two blends differ, in words, and line by line."""

    words: tuple[str, ...]
    rows: tuple[Row, ...]


def _number(value: float) -> str:
    return f"{value:.0f}" if value >= 10 else f"{value:.1f}" if value >= 1 else say(value, 2)


def _moved(before: Scale, after: Scale) -> str:
    low, high = _number(before.value), _number(after.value)
    unit = " %" if after.unit == "%" else ""
    if low == high:
        low, high = f"{before.value:.1f}", f"{after.value:.1f}"
    return f"{after.label.lower()} {low} → {high}{unit}"


def _ingredient(name: str) -> str:
    return name.split(",")[0]


def _shares(reading: BlendReading) -> dict[str, float]:
    found: dict[str, float] = {}
    for line in reading.lines:
        found[line.name] = found.get(line.name, 0.0) + line.share.value
    return found


def differ(before: BlendReading, after: BlendReading) -> Difference:
    """Determine how one blend differs from an earlier one.

    Words name the scales that moved by what can be tasted, then lines that came in, went out, or changed their
    grind, then shares of the other lines that moved by a point or more.
    """
    old, new = _shares(before), _shares(after)
    words = [
        _moved(a, b)
        for a, b in zip(before.scales, after.scales, strict=True)
        if abs(a.value - b.value) >= _MATTERS.get(a.key, float("inf"))
    ]
    out = [name for name in old if name not in new]
    into = [name for name in new if name not in old]
    for name in list(out):
        ground = next((other for other in into if _ingredient(other) == _ingredient(name)), None)
        if ground is not None:
            words.append(f"{name} → {ground.removeprefix(_ingredient(name)).strip(' ,') or ground}")
            out.remove(name)
            into.remove(ground)
    words += [f"{_ingredient(name)} out" for name in out] + [f"{_ingredient(name)} in" for name in into]
    words += [
        f"{_ingredient(name)} {_number(old[name])} → {_number(new[name])} %"
        for name in new
        if name in old and abs(old[name] - new[name]) >= _SHARE_MATTERS and _number(old[name]) != _number(new[name])
    ]
    rows = [Row(name, old.get(name), new.get(name)) for name in dict.fromkeys((*old, *new))]
    return Difference(tuple(words), tuple(rows))


def short(words: tuple[str, ...], most: int = 3) -> str:
    """Return the first few differences as one sentence."""
    if not words:
        return "the same blend"
    more = len(words) - most
    return ", ".join(words[:most]) + (f" and {more} more" if more > 0 else "")
