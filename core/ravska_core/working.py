"""Figures that can say why: a value with its working, its sources and its error."""

import math
from collections.abc import Sequence
from dataclasses import dataclass


class BadInput(ValueError):  # noqa: N818 - it is the input that is at fault, not the program
    """Input the core cannot work with, as a sentence that says what to do.

    Parameters
    ----------
    argument : str
        The core's own name of the offending value, dotted, as in ``lines.2.parts`` or ``piece.mass_g``.
    sentence : str
        What is wrong and what to write instead.
    code : str
        What kind of fault it is, for programs.
    """

    def __init__(self, argument: str, sentence: str, code: str = "invalid") -> None:
        super().__init__(sentence)
        self.argument = argument
        self.sentence = sentence
        self.code = code

    def under(self, prefix: str) -> "BadInput":
        """Return the same refusal with its argument placed below `prefix`."""
        return BadInput(f"{prefix}.{self.argument}" if self.argument else prefix, self.sentence, self.code)


# a screen makes these two by the hundred at every key; filled as frozen classes usually are they take thrice as long


@dataclass(frozen=True)
class Step:
    """One line of working: what was computed, how, the result, and where the rule is from."""

    label: str
    formula: str
    value: float
    unit: str
    source: str = "arithmetic"

    def __init__(self, label: str, formula: str, value: float, unit: str, source: str = "arithmetic") -> None:
        self.__dict__.update(label=label, formula=formula, value=value, unit=unit, source=source)


@dataclass(frozen=True)
class Figure:
    """A number for people: value in canonical `unit`, the range it may lie in, and its working."""

    value: float
    unit: str
    error: str
    steps: tuple[Step, ...]
    low: float | None
    high: float | None

    def __init__(
        self, value: float, unit: str, error: str, steps: tuple[Step, ...], low: float | None, high: float | None
    ) -> None:
        self.__dict__.update(value=value, unit=unit, error=error, steps=steps, low=low, high=high)


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


def in_range(argument: str, value: float, low: float, high: float, sentence: str) -> None:
    """Refuse a value outside the two limits, or one that is no number, with `sentence` at `argument`."""
    if not (math.isfinite(value) and low <= value <= high):
        raise BadInput(argument, sentence, "out of range")


def say(value: float, figures: int = 3) -> str:
    """Return a number to so many figures as people write it: never with an exponent, nor with zeros at its end.

    What stands before the point is not rounded: 1234.5 to three figures is 1234.
    """
    text = f"{value:.{figures}g}"
    if "e" not in text:
        return text
    digits = max(0, figures - 1 - math.floor(math.log10(abs(value))))
    text = f"{value:.{digits}f}"
    return text.rstrip("0").rstrip(".") if "." in text else text
