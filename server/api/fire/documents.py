"""What is noted at the fire and how it stands, as documents."""

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from book.models import Event
from ninja import Schema
from pydantic import AwareDatetime, Field
from ravska_core.fire import KINDS, FireReading, Tap

from api.plumbing.quantities import Mass, ReadTemperature
from api.plumbing.typed import Key, Note

MOST_NOTED = 200


class TapDocument(Schema):
    """What is noted by a tap, under a key of its own: what, when if not now, of which piece, and what is said with it.

    `of` is the key of one that it stands for from now on: moved to another time, or with ``undone`` taken back.
    """

    key: UUID
    what: Annotated[str, Field(max_length=12)]
    at: AwareDatetime | None = None
    letter: Annotated[str, Field(max_length=4)] = ""
    note: Note = ""
    word: Key = ""
    celsius: ReadTemperature = ReadTemperature("")
    grams: Mass = Mass("")
    count: Annotated[int, Field(ge=0, le=500)] | None = None
    x: Annotated[float, Field(ge=0, le=1)] | None = None
    y: Annotated[float, Field(ge=0, le=1)] | None = None
    near: bool | None = None
    side: Annotated[str, Field(max_length=20)] = ""
    phase: Annotated[int, Field(ge=0, le=11)] | None = None
    step: Key = ""
    of: UUID | None = None

    def as_tap(self, at: datetime) -> Tap:
        """Return it as the core takes it.

        Raises
        ------
        BadInput
            At ``celsius`` or ``grams`` for what cannot be read.
        """
        return Tap(
            str(self.key), self.what, at, self.letter, self.note.strip(), self.word,
            self.celsius.read("celsius") if self.celsius else None, self.grams.read("grams") if self.grams else None,
            self.count, self.x, self.y, self.near, self.side, self.phase, self.step,
        )  # fmt: skip


class TapsDocument(Schema):
    """Taps in the order they were made, as many as were kept while there was no connection."""

    taps: Annotated[list[dict[str, Any]], Field(max_length=MOST_NOTED)]


@dataclass(frozen=True, slots=True)
class TapRefused:
    """A tap that cannot be noted: its number among those sent, from 0 on, the field and why."""

    row: int
    field: str
    sentence: str


@dataclass(frozen=True, slots=True)
class NotedOut:
    """Keys of the taps that are noted, now or before, and those that cannot be."""

    noted: list[UUID]
    refused: list[TapRefused]


@dataclass(frozen=True, slots=True)
class EventOut:
    """Something that was noted, as it stands."""

    key: UUID
    what: str
    says: str
    at: datetime
    letter: str
    note: str
    word: str
    celsius: float | None
    grams: float | None
    count: int | None
    photo: bool


def event_out(row: Event, letter: str) -> EventOut:
    """Return an event as it is shown."""
    said = row.said
    return EventOut(
        row.key, row.what, KINDS[row.what].says, row.at, letter, row.note, said.get("word", ""), said.get("celsius"),
        said.get("grams"), said.get("count"), hasattr(row, "photo"),
    )  # fmt: skip


@dataclass(frozen=True, slots=True)
class KindOut:
    """A kind of tap: what its button says, what it is `of`, and the words it takes."""

    key: str
    button: str
    of: str
    words: tuple[str, ...]


KINDS_OUT = [KindOut(key, kind.button, kind.of, kind.words) for key, kind in KINDS.items()]


@dataclass(frozen=True, slots=True)
class ProbeLineOut:
    """What a probe showed: moments [s since 1970] and temperatures [C], of many the extremes."""

    device: UUID
    channel: str
    role: str
    letter: str
    at: list[float]
    celsius: list[float]


@dataclass(frozen=True, slots=True)
class ProbeOut:
    """A channel of a device: what it is used for in this cook, what it shows now, when it was heard last."""

    device: UUID
    device_name: str
    channel: str
    role: str
    letter: str
    name: str
    celsius: float | None
    heard_at: datetime | None
    clock: str
    simulated: bool


@dataclass(frozen=True, slots=True)
class FirePieceOut:
    """A piece of the cook: its letter and name, its shape [cm], its phases in words, and why it cannot be forecast.

    `faces` are those that can be told apart, so that it can be said which is down.
    """

    letter: str
    name: str
    about: str
    shape: str
    length_cm: float
    width_cm: float
    thickness_cm: float
    count: int
    phases: tuple[str, ...]
    says: str
    faces: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class FireOut:
    """A cook at its fire: by its own clock, which goes `speed` times as fast as everybody's.

    `reading` is how it stands, none before it has begun; `lines` are readings after the number that was asked for, up
    to `last`; `noted` is what was to be done otherwise this time.
    """

    id: UUID
    name: str
    now: datetime
    speed: float
    serve_at: datetime
    began_at: datetime | None
    ended_at: datetime | None
    pieces: list[FirePieceOut]
    grate: str
    reading: FireReading | None
    events: list[EventOut]
    lines: list[ProbeLineOut]
    last: int
    probes: list[ProbeOut]
    kinds: list[KindOut]
    simulated: bool
    noted: str


class ProbeDocument(Schema):
    """What a channel of a device measures from now on, or from a time; ``none`` where it is not in use any more."""

    key: UUID
    device: UUID
    channel: Annotated[str, Field(min_length=1, max_length=40)]
    role: Annotated[str, Field(pattern="^(pit|centre|surface|spot|none)$")]
    letter: Annotated[str, Field(max_length=1)] = ""
    name: Annotated[str, Field(max_length=40)] = ""
    from_at: AwareDatetime | None = None


class DeviceDocument(Schema):
    """A thermometer that is to send readings, by a name."""

    name: Annotated[str, Field(min_length=1, max_length=40)]


@dataclass(frozen=True, slots=True)
class DeviceOut:
    """A device that may send readings, or might once; how fast its clock was when it was heard last, in words."""

    id: UUID
    name: str
    made_at: datetime
    heard_at: datetime | None
    revoked: bool
    clock: str
    simulated: bool


@dataclass(frozen=True, slots=True)
class DeviceMadeOut:
    """A device that was made now, and its token, which is told this once."""

    device: DeviceOut
    token: str


class SimulatedDocument(Schema):
    """The simulated thermometer that is put to a cook: how many times as fast its time goes, and what its fire is."""

    speed: Annotated[float, Field(ge=1, le=120)] = 20.0
    steady: bool = False
    seed: Annotated[int, Field(ge=0, le=2**31)] | None = None


class HandDocument(Schema):
    """What hands do at the simulated fire: open its lid, put a slipped probe back."""

    do: Annotated[str, Field(pattern="^(put back|drop out)$")]
    letter: Annotated[str, Field(max_length=1)] = ""


class PhotoDocument(Schema):
    """A photo as the page sized it down: a JPEG in base64, and the tap that it is noted by."""

    tap: TapDocument
    jpeg: Annotated[str, Field(max_length=420_000)]
