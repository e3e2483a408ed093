"""Fires of the demo household: what was noted and read of cooks that are over, and one that is on now. All made up."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from typing import Any
from uuid import NAMESPACE_URL, UUID, uuid5

from devices.hidden.cook import HiddenCook, Wanted
from devices.hidden.fire import Burns
from ravska_core.heat import SURROUNDS, Phase
from ravska_core.meat import find_cut, read_piece

from book.days import tick
from book.fires import hashed
from book.models import Cook, Device, Event, Piece, ProbeUse, Reading
from book.models.values import phases_from

_MINUTE_S, _READ_EVERY_S, _MOST_S = 60.0, 120.0, 14 * 3600.0
_GIVES_C = {"giving": 88.0, "like butter": 93.0}
"""At what centre the demo's meat feels so [°C]."""

_SPRITZED_EVERY_S, _ONE_AFTER_THE_OTHER_S = 45 * 60.0, 60.0

_Deed = tuple[float, str, Piece | None, dict[str, Any]]


@dataclass
class _OnFire:
    """A piece on the demo's fire: its hot phases, which of them it is in, and when it came off [s]."""

    piece: Piece
    phases: list[Phase]
    on_s: float
    at: int = 0
    felt: set[str] = field(default_factory=set)
    off_s: float | None = None

    def ends(self, centre_c: float) -> bool:
        phase = self.phases[self.at]
        goal = _GIVES_C.get(phase.feel, phase.centre_c)
        return goal is not None and centre_c >= goal


def _key(cook: Cook, *of: object) -> UUID:
    return uuid5(NAMESPACE_URL, f"{cook.name} {cook.serve_at} {of}")


def _write(cook: Cook, began_at: datetime, deeds: Sequence[_Deed]) -> None:
    Event.objects.bulk_create(
        Event(
            cook=cook, piece=piece, what=what, note=said.pop("note", ""), said=said,
            at=began_at + timedelta(seconds=seconds), noted_at=began_at + timedelta(seconds=seconds, microseconds=at),
            key=_key(cook, at, what),
        )
        for at, (seconds, what, piece, said) in enumerate(sorted(deeds, key=lambda deed: deed[0]))
    )  # fmt: skip


def _wanted(piece: Piece) -> Wanted:
    solid = read_piece(piece.as_core()).solid
    return Wanted(piece.letter, solid.length_cm, solid.width_cm, solid.thickness_cm, surface=True, cold=True)


def burn(cook: Cook, seed: int, weather: str, fed: int, left_g: float) -> None:
    """Let a cook that is over have been on its fire, and be served when it was to be."""
    pieces = list(cook.pieces.all())
    on = [_OnFire(piece, _hot(piece), at * _ONE_AFTER_THE_OTHER_S) for at, piece in enumerate(pieces)]
    hidden = HiddenCook(Burns("charcoal", on[0].phases[0].aimed_c), [_wanted(piece) for piece in pieces], seed)
    deeds: list[_Deed] = [(-1500.0, "began", None, {}), (-1200.0, "weather", None, {"word": weather})]
    rows: list[tuple[float, str, float]] = []
    shown = dict[str, float]()
    while any(one.off_s is None for one in on) and hidden.seconds < _MOST_S:
        for deed in _next_deeds(on, hidden, shown):
            deeds.append(deed)
            hidden.do(deed[1], deed[2].letter if deed[2] else "")
        hidden.go(_MINUTE_S)
        shown = hidden.shown()
        if hidden.seconds % _READ_EVERY_S < _MINUTE_S / 2:
            rows += [(hidden.seconds, channel, celsius) for channel, celsius in shown.items()]
    last = max(one.off_s or hidden.seconds for one in on)
    deeds += _after(on, last, fed, left_g)
    began_at = cook.serve_at - timedelta(seconds=last + 35 * 60)
    _write(cook, began_at, deeds)
    _read(cook, began_at, rows, pieces)


def _hot(piece: Piece) -> list[Phase]:
    return [phase for phase in phases_from(piece.phases)[0] if SURROUNDS[phase.surround].hot]


def _next_deeds(on: Sequence[_OnFire], hidden: HiddenCook, shown: dict[str, float]) -> Iterator[_Deed]:
    """Return what hands do in a minute: put on, spritz, feed the fire, wrap, feel, take off."""
    now = hidden.seconds
    if now and now % 4500 < _MINUTE_S:
        yield now, "fuel", None, {}
    for one in on:
        letter = one.piece.letter
        if one.on_s <= now < one.on_s + _MINUTE_S:
            yield one.on_s, "on", one.piece, {}
        centre = shown.get(letter)
        if one.off_s is not None or centre is None or now < one.on_s + 300:
            continue
        phase = one.phases[one.at]
        open_ = phase.vessel in ("grate", "rack") and not one.ends(centre)
        if open_ and (now - one.on_s) % _SPRITZED_EVERY_S < _MINUTE_S:
            yield now, "spritz", one.piece, {}
        if phase.feel and centre > _GIVES_C[phase.feel] - 8 and "tough" not in one.felt:
            one.felt.add("tough")
            yield now, "feel", one.piece, {"word": "tough"}
        if not one.ends(centre):
            continue
        if phase.feel:
            yield now, "feel", one.piece, {"word": phase.feel}
        if one.at + 1 < len(one.phases):
            one.at += 1
            yield now, "colour", one.piece, {"word": "brown"}
            yield now, "wrap", one.piece, {}
        else:
            one.off_s = now
            yield now, "off", one.piece, {}


def _after(on: Sequence[_OnFire], last_s: float, fed: int, left_g: float) -> list[_Deed]:
    deeds: list[_Deed] = []
    for at, one in enumerate(on):
        kept = find_cut(one.piece.cut).cook_yield + (0.02, -0.015)[at % 2]
        off_s = one.off_s or last_s
        deeds += [
            (off_s + 60, "weight", one.piece, {"grams": round(one.piece.mass_g * kept, -1)}),
            (last_s + 25 * 60, "slice", one.piece, {}), (last_s + 35 * 60, "plate", one.piece, {}),
        ]  # fmt: skip
    deeds += [
        (last_s + 30 * 60, "ended", None, {}), (last_s + 80 * 60, "fed", None, {"count": fed}),
        (last_s + 90 * 60, "came back", on[0].piece, {"grams": 90.0}),
        (last_s + 95 * 60, "left over", on[-1].piece, {"word": "fridge", "grams": left_g}),
    ]  # fmt: skip
    return deeds


def _read(cook: Cook, began_at: datetime, rows: Sequence[tuple[float, str, float]], pieces: Sequence[Piece]) -> None:
    device = Device.objects.create(
        household=cook.household, name="Five channels", token_hash=hashed(str(_key(cook, "gone"))), made_at=began_at,
        heard_at=cook.serve_at, revoked_at=cook.serve_at,
    )  # fmt: skip
    uses: list[tuple[str, str, Piece | None]] = [("pit", "pit", None)]
    for piece in pieces:
        uses += [(piece.letter, "centre", piece), (f"{piece.letter} surface", "surface", piece)]
    ProbeUse.objects.bulk_create(
        ProbeUse(
            cook=cook, device=device, channel=channel, role=role, piece=piece, name=channel, from_at=began_at,
            noted_at=began_at, key=_key(cook, channel),
        )
        for channel, role, piece in uses
    )  # fmt: skip
    times = [(began_at + timedelta(seconds=seconds), channel, celsius) for seconds, channel, celsius in rows]
    Reading.objects.bulk_create(
        [
            Reading(device=device, channel=channel, shown_at=at, at=at, celsius=round(celsius, 1), noted_at=at)
            for at, channel, celsius in times
        ],
        batch_size=500,
    )


def set_alight(cook: Cook, now: datetime, on_for: timedelta) -> None:
    """Have a cook on its fire now: on for so long, read by hand now and then; no probe is in it."""
    first, *others = cook.pieces.all()
    began = now - on_for - timedelta(minutes=25)
    on_s = 25 * 60.0
    deeds: list[_Deed] = [
        (0.0, "began", None, {}), (120.0, "weather", None, {"word": "still"}), (on_s, "on", first, {}),
        (on_s + 20 * 60, "read", None, {"word": "pit", "celsius": 149.0}),
        (on_s + 25 * 60, "spritz", first, {}),
        (on_s + on_for.total_seconds() - 300, "read", first, {"word": "centre", "celsius": 27.0}),
    ]  # fmt: skip
    deeds += [(on_s + 60, "on", one, {}) for one in others]
    _write(cook, began, deeds)
    for piece in cook.pieces.all():
        tick(cook, piece.letter, "wash", began)
