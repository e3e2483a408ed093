"""Cautions: plain sentences that say what to do, each from one rule with its condition and source."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Generic, Literal, TypeVar

LEVELS = ("stop", "caution", "note")


Level = Literal["stop", "caution", "note"]


@dataclass(frozen=True)
class Caution:
    """A caution as shown: level, sentence, what to do, its source, and the layer at whose step it stands, by place."""

    id: str
    level: Level
    sentence: str
    action: str
    source: str
    layer: int | None = None


Known = TypeVar("Known")
"""What a rule is judged from: a piece's `Situation`, or a blend with its reading."""


@dataclass(frozen=True)
class Rule(Generic[Known]):
    """A caution with its condition; `fill` gives what its sentence and its action name.

    `met` gives the one line that is left of it when the plan meets it, "" as long as it does not. `at_step` says that
    it stands at the step of the layer it concerns.
    """

    id: str
    level: Level
    applies: Callable[[Known], bool]
    sentence: str
    action: str
    source: str = "guidance"
    fill: Callable[[Known], dict[str, str]] = field(default=lambda known: {})
    met: Callable[[Known], str] = field(default=lambda known: "")
    at_step: bool = False


def judge(rules: Sequence[Rule[Known]], known: Known, layer: int | None = None) -> tuple[Caution, ...]:
    """Return the cautions of the rules that apply, most serious first; `layer` is the place of the layer judged."""
    found = []
    for rule in rules:
        if rule.applies(known):
            words, met, at = rule.fill(known), rule.met(known), layer if rule.at_step else None
            sentence, action = rule.sentence.format(**words), rule.action.format(**words)
            if met:
                found.append(Caution(rule.id, "note", met, "", rule.source, at))
            else:
                found.append(Caution(rule.id, rule.level, sentence, action, rule.source, at))
    return tuple(sorted(found, key=lambda caution: LEVELS.index(caution.level)))
