"""What several nouns show: spoons, cautions, bands of a strip, jars."""

from dataclasses import dataclass
from typing import Literal

from ravska_core.bowl import JarFit
from ravska_core.catalogue import catalogue
from ravska_core.cautions import Caution
from ravska_core.measure import Spoonfuls
from ravska_core.working import Figure


@dataclass(frozen=True, slots=True)
class SpoonsOut:
    """A volume in level spoonfuls, with what the rounding does."""

    text: str
    volume: Figure


def spoons_out(found: Spoonfuls, wanted_ml: float) -> SpoonsOut:
    return SpoonsOut(text=found.text, volume=found.working(wanted_ml))


@dataclass(frozen=True, slots=True)
class CautionOut:
    """A caution; one with a `layer` stands at that layer's step, by its place."""

    id: str
    level: Literal["stop", "caution", "note"]
    sentence: str
    action: str
    source: str
    layer: int | None = None


def caution_out(found: Caution) -> CautionOut:
    return CautionOut(
        id=found.id,
        level=found.level,  # type: ignore[arg-type]
        sentence=found.sentence,
        action=found.action,
        source=catalogue().sources[found.source].title,
        layer=found.layer,
    )


@dataclass(frozen=True, slots=True)
class BandOut:
    """A stretch of a grain strip: a grind and its share of the mass."""

    grind: str
    share: float


@dataclass(frozen=True, slots=True)
class JarOut:
    """The jar a batch goes in [ml], how many of them, and how full [%]."""

    jar_ml: float
    count: int
    full: Figure


def jar_out(found: JarFit) -> JarOut:
    return JarOut(found.jar_ml, found.count, found.full)
