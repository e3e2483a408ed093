"""Figures that can say why: a value with its working, its sources and its error."""

import math
from collections.abc import Sequence
from dataclasses import dataclass


class BadInput(ValueError):  # noqa: N818 - it is the input that is at fault, not the program
    """Input the core cannot work with, as a sentence that says what to do.

    Parameters
    ----------
    field : str
        Path of the offending value in the input document, dotted, as in ``lines.2.parts``.
    sentence : str
        What is wrong and what to write instead.
    """

    def __init__(self, field: str, sentence: str) -> None:
        super().__init__(sentence)
        self.field = field
        self.sentence = sentence

    def under(self, prefix: str) -> "BadInput":
        """Return the same refusal with its field placed below `prefix`."""
        return BadInput(f"{prefix}.{self.field}" if self.field else prefix, self.sentence)


@dataclass(frozen=True)
class Step:
    """One line of working: what was computed, how, the result, and where the rule is from."""

    label: str
    formula: str
    value: float
    unit: str
    source: str = "arithmetic"


@dataclass(frozen=True)
class Figure:
    """A number for people: value in canonical `unit`, the range it may lie in, and its working."""

    value: float
    unit: str
    error: str
    steps: tuple[Step, ...]
    low: float | None
    high: float | None


def figure(
    steps: Sequence[Step], error: str, spread: float | None = None, low: float | None = None, high: float | None = None
) -> Figure:
    """Return the figure whose value is the last step's.

    `spread` is a relative error (0.15 for 15 %) that sets both ends of the range.
    """
    last = steps[-1]
    if spread is not None:
        low, high = last.value * (1 - spread), last.value * (1 + spread)
    return Figure(last.value, last.unit, error, tuple(steps), low, high)


def in_range(field: str, value: float, low: float, high: float, sentence: str) -> None:
    """Refuse a value outside the two limits, or one that is no number, with `sentence` at `field`."""
    if not (math.isfinite(value) and low <= value <= high):
        raise BadInput(field, sentence)


def say(value: float, figures: int = 3) -> str:
    """Return a number to so many figures as people write it: never with an exponent, nor with zeros at its end.

    What stands before the point is not rounded: 1234.5 to three figures is 1234.
    """
    if value == 0 or not math.isfinite(value):
        return f"{value:g}"
    digits = max(0, figures - 1 - math.floor(math.log10(abs(value))))
    text = f"{value:.{digits}f}"
    return text.rstrip("0").rstrip(".") if "." in text else text
