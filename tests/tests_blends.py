"""A short way to write a blend down in a test."""

from fractions import Fraction

from ravska_core.blends import Blend, Line


def blend(*lines: tuple[str, object, str], batch_g: float = 100.0, kind: str = "dry rub") -> Blend:
    return Blend(kind, tuple(Line(grind, Fraction(parts), basis) for grind, parts, basis in lines), batch_g)
