"""What the fire left of a piece and who ate of it, by what was weighed and counted."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from ravska_core.fire.taps import Tap

_OVER = ("off", "rest", "slice", "plate", "ended")


@dataclass(frozen=True)
class OnBoard:
    """A piece as it was on the board: its letter, its raw weight [g], and what of it is bone [share]."""

    letter: str
    mass_g: float
    bone_share: float = 0.0


@dataclass(frozen=True)
class Weighed:
    """A weighing of a piece: when, how heavy [g], and what it had lost by then [%]."""

    at: datetime
    grams: float
    lost_percent: float


@dataclass(frozen=True)
class Weighings:
    """Weighings of a piece from when it went on, against its raw weight [g]; `before` where that was weighed too.

    `cooked` is the last one that was made when it was off.
    """

    raw_g: float
    before: bool
    rows: tuple[Weighed, ...]
    cooked: Weighed | None

    @property
    def kept(self) -> float | None:
        """What is left of the raw weight [0 to 1]; None where nobody weighed it cooked."""
        return None if self.cooked is None else self.cooked.grams / self.raw_g


def weighings(taps: Sequence[Tap], piece: OnBoard) -> Weighings:
    """Return what was weighed of a piece: `taps` are all that stand, in order."""
    mine = [tap for tap in taps if tap.letter == piece.letter]
    on_at = next((tap.at for tap in mine if tap.what == "on"), None)
    scales = [tap for tap in mine if tap.what == "weight" and tap.grams]
    before = [tap.grams for tap in scales if on_at is not None and tap.at <= on_at]
    raw_g = before[-1] if before and before[-1] else piece.mass_g
    rows = [
        Weighed(tap.at, tap.grams, (1 - tap.grams / raw_g) * 100)
        for tap in scales
        if on_at is not None and tap.at > on_at and tap.grams
    ]
    over = [tap.at for tap in taps if tap.what in _OVER and tap.letter in ("", piece.letter)]
    cooked = rows[-1] if rows and over and rows[-1].at >= over[0] else None
    return Weighings(raw_g, bool(before), tuple(rows), cooked)


def grams_of(taps: Sequence[Tap], what: str, letter: str = "") -> float:
    """Return what was weighed of a kind of tap in all [g]: of a piece, or of all."""
    return sum(tap.grams or 0.0 for tap in taps if tap.what == what and letter in ("", tap.letter))


def fed_of(taps: Sequence[Tap]) -> int | None:
    """Return how many a cook fed; None where nobody said."""
    return next((tap.count for tap in reversed(taps) if tap.what == "fed" and tap.count), None)


def eaten_of(taps: Sequence[Tap], piece: OnBoard) -> float | None:
    """Return what was eaten of a piece [g]: cooked, without bone, less what came back and what is left over.

    None where nobody weighed it cooked.
    """
    cooked = weighings(taps, piece).cooked
    if cooked is None:
        return None
    gone = grams_of(taps, "came back", piece.letter) + grams_of(taps, "left over", piece.letter)
    return max(0.0, cooked.grams * (1 - piece.bone_share) - gone)


def eaten_an_eater(taps: Sequence[Tap], pieces: Sequence[OnBoard]) -> float | None:
    """Return what an eater ate [g]; None where not all pieces that were cooked are weighed, or nobody said how many."""
    cooked = {tap.letter for tap in taps if tap.what == "on"}
    ate = [eaten_of(taps, piece) for piece in pieces if piece.letter in cooked]
    fed = fed_of(taps)
    if fed is None or not ate or any(one is None for one in ate):
        return None
    return sum(one or 0.0 for one in ate) / fed
