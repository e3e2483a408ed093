"""What is done to a piece on its way to the table, as a lane of tasks with the waits that may lie between them.

How long hands take, how far a wait may be stretched and how long finished meat may wait hot are common practice, no
source, unless a line says otherwise.
"""

import math
import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property
from types import MappingProxyType

from ravska_core.blend import Blend
from ravska_core.catalogue import Cut
from ravska_core.cautions import COLD_C
from ravska_core.coat import LAYER_KINDS, Layer, Seasoned, usual_steps
from ravska_core.day.plan import GRAIN_MIN, Need, Task
from ravska_core.heat import COOKER_KINDS, SURROUNDS, Cooker, Heated, HeatReading, Phase, last_hot, read_heat
from ravska_core.meat import find_cut

HANDS, BOARD = "hands", "board"

SETTLES_MIN = 20
"""How long a fire takes from one heat to another (common practice, no source)."""

RAW, COOKED = Need(BOARD, 1.0, 0.0, 0.0), Need(BOARD, 1.0, 1.0, 1.0)
"""What takes up the board: raw meat, or what is eaten as it lies there; never both at once."""

_HANDS_MIN: Mapping[str, int] = MappingProxyType(
    {"mix": 15, "aside": 5, "inject": 20, "bind": 5, "coat": 10, "bag": 5, "wipe": 10, "salt": 5}
)
"""How long a step keeps hands busy [min]."""

_DOES: Mapping[str, str] = MappingProxyType(
    {
        "mix": "Mix", "aside": "Set some aside", "inject": "Inject", "bind": "Brush the binder on", "coat": "Coat",
        "bag": "Bag", "wipe": "Wipe it dry", "salt": "Salt",
    }
)  # fmt: skip

_SHORTEST, _LONGEST = 0.5, MappingProxyType({"salt": 2.0, "coat": 2.0, "inject": 3.0, "bag": 1.25})
"""How far a cold hold may be cut short, and stretched by what it is, over what is planned."""

_DAY_MIN, _MOST_COLD_MIN = 1440, 2880

_ON_MIN, LIGHT_MIN, _TRIM_MIN, _SERVE_MIN = 5, 5, 10, 10

_SLICED_MIN, _TENDED_MIN, _TOLD_MIN = 30, 15, 30
"""How long what is sliced may wait, and up to how short a fire somebody stands beside it all
the while, from how long on a phase is told in fives [min]."""

_APART = 1.15
"""Room a piece takes on the grate, over its own length and width."""

BAND_USUAL_K = 10.0

_BAND_K = MappingProxyType({"direct flame": 30.0, "hot iron": 30.0, "broiler": 30.0})
"""How far a fire may be from the heat aimed at where no band was said [K]; 10 beside it and in an oven."""

_SURE = 17
"""The grain that finished meat is planned to be hot by: 18 chances in 20."""


@dataclass(frozen=True)
class DayPiece:
    """A piece as its day is planned from it: what is on it, and its phases with the keys of their cookers.

    Without phases `heated` is None, and its time on the fire the usual one of its cut. `names` say what each layer is
    of. `done` are the steps that are over, by kind and place of their layer, `ticked` those by the key of their task,
    each with when that was [min, 0 at serving]; `pins` when a task was said to begin, by its key [min].
    """

    letter: str
    seasoned: Seasoned
    heated: Heated | None = None
    keys: tuple[str, ...] = ()
    names: tuple[str, ...] = ()
    done: Mapping[tuple[str, int | None], int] = field(default_factory=dict)
    ticked: Mapping[str, int] = field(default_factory=dict)
    pins: Mapping[str, int] = field(default_factory=dict)

    @cached_property
    def heat(self) -> HeatReading | None:
        """How its phases go, by 64 draws."""
        return None if self.heated is None else read_heat(self.heated)

    @property
    def cut(self) -> Cut:
        return find_cut(self.seasoned.piece.cut)

    @property
    def cookers(self) -> tuple[tuple[str, Cooker], ...]:
        """The cooker of each phase and the key that phases share it by."""
        return () if self.heated is None else tuple(zip(self.keys, self.heated.cookers, strict=True))


@dataclass(frozen=True)
class Doing:
    """A task of a piece in words: what is done, which kind of block it is, and what the wait after it is.

    `kind` is ``hands``, ``light``, ``fire``, ``wrapped``, ``liquid``, ``cold``, ``rest``, ``way`` or, of what is done
    beside a task of the chain, ``beside``; `waits` ``cold``,
    ``bench``, ``ready`` (a cooker that warms up) or ``hot``. `step` is the kind of Home's step that it begins, and
    `layer` the place of that step's layer; `mixes` are the blends that a mixing is of.
    """

    task: Task
    says: str
    kind: str
    waits: str = ""
    step: str = ""
    layer: int | None = None
    mixes: frozenset[Blend] = frozenset()


def waits_hot_min(cut: Cut) -> int:
    """Return how long a piece may wait hot, above 60 °C, once it has rested [min]."""
    if cut.meat_class == "tough" and cut.fire_min >= 90:
        return 240
    if cut.meat_class == "fish":
        return 5
    return 45 if cut.rest_min >= 15 else 20


def _hold(says: str, layer: Layer, kind: str, hands: int, at: int) -> Doing:
    """Return the task that begins a hold, and the hold as the wait after it."""
    held = max(0, round(layer.hold_s / 60) - hands)
    cold = layer.hold_c <= COLD_C
    most = held
    if cold and held > GRAIN_MIN:
        most = max(held, min(round(held * _LONGEST.get(kind, 1.0)), _MOST_COLD_MIN if kind == "salt" else _DAY_MIN))
    least = round(held * _SHORTEST) if held > GRAIN_MIN else held
    task = Task(f"{kind}.{at}", hands, (Need(HANDS), RAW), least, held, most, awake=True)
    return Doing(task, says, "hands", "cold" if cold else "bench", kind, at)


def _before(piece: DayPiece) -> list[Doing]:
    """Return what is done before the fire: thaw, trim, every layer where it belongs, out of the cold."""
    hands, found = (Need(HANDS),), list[Doing]()
    core = piece.seasoned.piece
    for stage in core.stages:
        if stage.what == "thaw":
            lasts, waits = round(stage.lasts_s / 60), "cold" if stage.celsius <= COLD_C else "bench"
            task = Task("thaw", _ON_MIN, hands, lasts, lasts, lasts, awake=True)
            found.append(Doing(task, "Out of the freezer, to thaw", "hands", waits))
    if piece.cut.trims or core.untrimmed_g is not None:
        trim = Task("trim", _TRIM_MIN, (*hands, RAW), 0, 0, _DAY_MIN, awake=True)
        found.append(Doing(trim, "Trim it and pat it dry", "hands", "cold"))
    layers = piece.seasoned.layers
    mixes = frozenset(one.blend for one in layers if one.blend is not None and len(one.blend.lines) > 1)
    for step in usual_steps(layers, 0.0, 0.0):
        if step.kind not in _HANDS_MIN:
            continue
        busy, at = _HANDS_MIN[step.kind], len(found) if step.layer is None else step.layer
        if step.layer is not None and LAYER_KINDS[layers[step.layer].kind].hold_s is not None:
            name = piece.names[step.layer] if piece.names else ""
            says = f"{_DOES[step.kind]} with {name}" if name else _DOES[step.kind]
            found.append(_hold(says, layers[step.layer], step.kind, busy, step.layer))
            continue
        # what is mixed keeps for a day; binder and wiping lead on to what they are for
        most = _DAY_MIN if step.kind in ("mix", "aside") else 0
        needs = hands if most else (*hands, RAW)
        task = Task(f"{step.kind}.{at}", busy, needs, 0, 0, most, awake=True)
        waits = "cold" if most else ""
        of = mixes if step.kind == "mix" else frozenset[Blend]()
        says = _DOES[step.kind]
        if step.kind == "mix" and piece.names:
            mixed = dict.fromkeys(name for name, one in zip(piece.names, layers, strict=True) if one.blend in mixes)
            says = f"Mix {', '.join(mixed)}"
        found.append(Doing(task, says, "hands", waits, step.kind, step.layer, of))
    for stage in core.stages:
        if stage.what == "temper":
            lasts = max(0, round(stage.lasts_s / 60) - _ON_MIN)
            task = Task("temper", _ON_MIN, hands, lasts, lasts, lasts, awake=True)
            found.append(Doing(task, "Out of the cold", "hands", "bench"))
    return found


def _need(piece: DayPiece, phase: Phase, key: str, cooker: Cooker) -> Need:
    """Return what a phase takes up of its cooker: room on its grate [cm2], and its heat."""
    assert piece.heated is not None
    solid = piece.heated.reading.solid
    room = min(solid.length_cm * solid.width_cm * solid.pieces * _APART, cooker.grate_cm2)
    return replace(heat_needed(phase, key), amount=room)


def heat_needed(phase: Phase, key: str) -> Need:
    """Return the heat that a phase takes of its cooker, from the least to the most that still does."""
    low, high = phase.low_c, phase.high_c
    if low is None or high is None:
        off = _BAND_K.get(phase.surround, BAND_USUAL_K)
        low, high = phase.aimed_c - off, phase.aimed_c + off
    return Need(key, 1.0, low, high)


def called(cooker: Cooker) -> str:
    """Return a cooker as people call it after "the": one of their own by its name, others by their kind."""
    own = cooker.says != COOKER_KINDS[cooker.kind].says
    return re.sub("^the ", "", cooker.says, flags=re.IGNORECASE) if own else cooker.kind


def lit_says(cooker: Cooker) -> str:
    """Say that a cooker is lit, or heated up."""
    return f"{'Light' if cooker.fuel_unit.startswith('kg') else 'Heat'} the {called(cooker)}"


def _light(key: str, cooker: Cooker) -> Doing:
    ready = max(0, round(cooker.ready_s / 60) - LIGHT_MIN)
    task = Task(f"light.{key}", LIGHT_MIN, (Need(HANDS),), ready, ready, ready, awake=True)
    return Doing(task, lit_says(cooker), "light", "ready")


def _on_the_fire(piece: DayPiece) -> list[Doing]:
    """Return a piece's phases one after another, the wrapping and the putting on with hands, and its rest."""
    hands, cut = Need(HANDS), piece.cut
    if piece.heated is None or piece.heat is None:
        resting = Task("rest", max(1, round(cut.rest_min)), (), 0, 0, waits_hot_min(cut))
        rested = Doing(resting, "Rest", "rest", "hot", "rest")
        if cut.fire_min <= _TENDED_MIN:
            fire = Task("on", max(1, round(cut.fire_min)), (hands,), awake=True)
            return [Doing(fire, "On the fire", "fire", "", "on"), rested]
        to = Doing(Task("to.0", _ON_MIN, (hands,), awake=True), "Put it on", "hands", "", "on")
        off = Doing(Task("off", _ON_MIN, (hands,), awake=True), "Take it off", "hands")
        return [to, Doing(Task("on", round(cut.fire_min) - _ON_MIN), "On the fire", "fire"), off, rested]
    found, before = list[Doing](), ("", "")
    phases, went = piece.heated.phases, piece.heat.phases
    last = last_hot(phases)
    for at in range(last + 1):
        phase, (key, cooker) = phases[at], piece.cookers[at]
        around, need = SURROUNDS[phase.surround], _need(piece, phase, key, cooker)
        lasts = _told_min((went[at].ends_s - went[at].begins_s) / 60)
        if around.hot and not any(one.kind == "light" for one in found):
            found.append(_light(key, cooker))
        # what is so short that it is put on and taken off at once keeps somebody beside it
        tended = around.one_side or bool(phase.sears_s) or (around.hot and lasts <= 2 * _ON_MIN)
        if (phase.vessel, key) != before and lasts > 2 * _ON_MIN and not tended:
            says = _INTO.get(phase.surround, "Put it on" if at == 0 else "Move it on")
            says = "Wrap it" if at and phase.vessel == "foil" else says
            found.append(Doing(Task(f"to.{at}", _ON_MIN, (hands, need), awake=True), says, "hands", "", _begins(at)))
            lasts -= _ON_MIN
        before = (phase.vessel, key)
        kind = "wrapped" if phase.vessel == "foil" else "fire"
        if not around.hot or around.wet:
            kind = "liquid" if around.hot else "cold"
        task = Task(f"phase.{at}", lasts, (hands, need) if tended else (need,), awake=tended)
        found.append(Doing(task, phase.says, kind, "", _begins(at)))
    rests = round(sum(one.ends_s - one.begins_s for one in went[last + 1 :]) / 60)
    found.append(Doing(Task("off", _ON_MIN, (hands,), awake=True), "Take it off", "hands"))
    rest = Task("rest", max(1, rests - _ON_MIN), (), 0, slack_min(piece), waits_hot_min(cut))
    return [*found, Doing(rest, "Rest until it can be pulled" if _pulled(piece) else "Rest", "rest", "hot", "rest")]


_INTO = MappingProxyType(
    {"water bath": "Into the bath", "covered liquid": "Into the pot", "oven": "Into the oven", "cold": "Into the cold"}
)
"""How putting a piece into what is around it is said."""


def _told_min(minutes: float) -> int:
    """Return how long a phase is planned for [min]: from half an hour on up to the next five minutes."""
    if minutes < _TOLD_MIN:
        return max(1, round(minutes))
    return math.ceil(round(minutes, 6) / GRAIN_MIN) * GRAIN_MIN


def _begins(phase: int) -> str:
    return "on" if phase == 0 else ""


def slack_min(piece: DayPiece) -> int:
    """Return how long finished meat is planned to wait hot, so that it is done in time in 18 chances of 20 [min]."""
    if piece.heat is None or piece.heat.done_s is None:
        return 0
    known = [one for one in piece.heat.done[: _SURE + 1] if one is not None]
    late = (known[-1] - piece.heat.done_s) / 60 if known else 0.0
    return min(waits_hot_min(piece.cut), max(0, math.ceil(late / GRAIN_MIN) * GRAIN_MIN))


def _lit_in_time(before: Sequence[Doing], fire: Sequence[Doing]) -> list[Doing]:
    """Put the lighting of a piece's fire where it is ready when the last hold before it ends.

    It burns up while the meat is held and not after that; what is done after it then keeps to its usual time.
    """
    if not before or fire[0].kind != "light":
        return [*before, *fire]
    light, rest, after = fire[0], list(fire[1:]), list[Doing]()
    burns = light.task.least

    def lit(waits: int, of: str) -> Doing:
        return replace(light, task=replace(light.task, least=waits, usual=waits, most=waits), waits=of)

    for at in range(len(before) - 1, -1, -1):
        one = before[at]
        task, left = one.task, burns - sum(each.task.lasts + each.task.usual for each in after)
        cut = left + light.task.lasts
        if task.usual >= cut:
            held = replace(task, least=max(0, task.least - cut), usual=task.usual - cut, most=task.most - cut)
            return [*before[:at], replace(one, task=held), lit(left, one.waits), *after, *rest]
        after.insert(0, replace(one, task=replace(task, least=task.usual, most=task.usual)))
        if task.lasts + task.usual >= left:
            return [*before[:at], lit(0, ""), *after, *rest]
    return [lit(burns - sum(each.task.lasts + each.task.usual for each in after), light.waits), *after, *rest]


def on_after(piece: DayPiece) -> float:
    """Return how long a piece is on the fire, from going on to coming off [min]."""
    if piece.heated is None or piece.heat is None:
        return piece.cut.fire_min
    went = piece.heat.phases
    return sum(
        _told_min((one.ends_s - one.begins_s) / 60) for one in went[: last_hot(piece.heated.phases) + 1]
    )  # fmt: skip


_PULLED_C = 88.0
"""From this centre on tough meat is pulled and not sliced (common practice, no source)."""


def _pulled(piece: DayPiece) -> bool:
    if piece.cut.meat_class != "tough" or piece.heated is None:
        return False
    last = piece.heated.phases[last_hot(piece.heated.phases)]
    return last.feel == "like butter" or (last.centre_c is not None and last.centre_c >= _PULLED_C)


def _served_says(piece: DayPiece) -> str:
    """Say how a piece is brought to the table: pulled or sliced, and what goes on it there."""
    words = ["Pull it" if _pulled(piece) else "Slice it"]
    for at, layer in enumerate(piece.seasoned.layers):
        name = piece.names[at] if piece.names and piece.names[at] else "the sauce"
        if layer.kind == "finishing salt":
            words.append("finishing salt on it")
        elif layer.kind == "stirred in":
            words.append(f"stir in {name}")
        elif layer.kind == "at the board":
            words.append(f"dress it with {name}")
        elif layer.kind == "at the table":
            words.append(f"{name} to the table")
    return ", ".join([*words, "serve"])


def doings_of(piece: DayPiece) -> tuple[Doing, ...]:
    """Return all that is still to be done to a piece, in order, to its serving.

    What was done last is the first of them, at the time it was: what follows waits from then. None where all is done.
    """
    return settled(whole_of(piece), piece.ticked, piece.done, piece.pins)


def whole_of(piece: DayPiece) -> list[Doing]:
    """Return all that is done to a piece, in order, whether it is done already or not."""
    # several pieces are sliced one after another, and wait as warm as they can
    most = min(_SLICED_MIN, waits_hot_min(piece.cut))
    task = Task("serve", _SERVE_MIN, (Need(HANDS), COOKED), 0, 0, most, awake=True)
    served = Doing(task, _served_says(piece), "hands", "hot", "plate")
    return [*_lit_in_time(_before(piece), _on_the_fire(piece)), served]


def done_at_min(
    doing: Doing, ticked: Mapping[str, int], done: Mapping[tuple[str, int | None], int]
) -> int | None:  # fmt: skip
    """Return when something was done [min, 0 at serving], None where it was not."""
    return ticked.get(doing.task.key, done.get((doing.step, doing.layer)) if doing.step else None)


def settled(
    doings: Sequence[Doing], ticked: Mapping[str, int], done: Mapping[tuple[str, int | None], int],
    pins: Mapping[str, int],
) -> tuple[Doing, ...]:  # fmt: skip
    """Return what is still to be done, with what was said and what happened of it; see `DayPiece`."""
    over, at_min = -1, 0
    for at, one in enumerate(doings):
        when = done_at_min(one, ticked, done)
        if when is not None:
            over, at_min = at, when
    if over == len(doings) - 1:
        return ()
    found = [_pinned(one, pins) for one in doings]
    return tuple(found) if over < 0 else tuple(_begun(found[over:], at_min))


def _pinned(doing: Doing, pins: Mapping[str, int]) -> Doing:
    begins = pins.get(doing.task.key)
    return doing if begins is None else replace(doing, task=replace(doing.task, begins=begins))


def _runs_by_itself(task: Task) -> bool:
    return task.key == "rest" or task.key == "on" or task.key.startswith("phase.")


def _begun(left: Sequence[Doing], at_min: int) -> Iterator[Doing]:
    """Give what is left to do from the last thing that is done: that is where it was, and what runs by itself runs on.

    What is ticked was done by then; a phase, or a rest, began then. A fire that is lit may burn longer than it has to.
    """
    first = left[0].task
    by_itself = _runs_by_itself(first)
    lit = left[0].kind == "light"
    task = replace(
        first, begins=at_min if by_itself else at_min - first.lasts, begun=True, awake=False,
        needs=tuple(need for need in first.needs if need.low_c is not None and by_itself),
        most=first.most + (KEEPS_HOT_MIN if lit else 0),
    )  # fmt: skip
    yield replace(left[0], task=task)
    runs = True
    for one in left[1:]:
        runs = runs and _runs_by_itself(one.task)
        yield replace(one, task=replace(one.task, begun=True)) if runs else one


KEEPS_HOT_MIN = 60
"""How long a fire that is used again is kept up (common practice, no source)."""
