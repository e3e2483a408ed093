"""Short ways to write a blend down in a test, and blends drawn at random."""

from collections.abc import Sequence
from fractions import Fraction

from hypothesis import strategies as st
from ravska_core.blend import Blend, Line
from ravska_core.catalogue import catalogue

KEYS = sorted(key for key, row in catalogue().grinds.items() if "cure" not in row.ingredient.flags)
parts = st.fractions(Fraction(1, 16), 40, max_denominator=16)


def blend(
    *lines: tuple[str | Blend, object, str] | tuple[str | Blend, object, str, str],
    batch_g: float = 100.0,
    kind: str = "dry rub",
    name: str = "",
    fire: str = "",
) -> Blend:
    found = []
    for of, amount, basis, *lock in lines:
        inside = of if isinstance(of, Blend) else None
        found.append(Line("" if inside else str(of), Fraction(amount), basis, lock[0] if lock else "", inside))
    return Blend(kind, tuple(found), batch_g, name, fire)


@st.composite
def lines(draw, least: int = 1, most: int = 8, inside: Sequence[Blend] = ()):
    keys = draw(st.lists(st.sampled_from(KEYS), min_size=least, max_size=most, unique=True))
    found = [Line(key, draw(parts), draw(st.sampled_from(["spoon", "scale"]))) for key in keys]
    for of in inside:
        found.insert(draw(st.integers(0, len(found))), Line("", draw(parts), "scale", "", of))
    return tuple(found)


@st.composite
def nested(draw):
    """A blend that holds two others, one of which holds a third."""
    deepest = Blend("dry rub", draw(lines()), 50.0, "deepest")
    first = Blend("dry rub", draw(lines(inside=[deepest])), 50.0, "first")
    second = Blend("paste", draw(lines()), 50.0, "second")
    return Blend("marinade", draw(lines(inside=[first, second])), 200.0, "whole")
