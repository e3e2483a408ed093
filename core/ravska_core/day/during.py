"""What is done beside the chain of a piece's tasks: what goes on over the fire, turns, looks, cookers for later.

How long hands take and how often one looks are common practice, no source, unless a line says otherwise.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import replace

from ravska_core.coat import LAYER_KINDS, usual_steps
from ravska_core.day.plan import Need, Task, Within
from ravska_core.day.tasks import (
    HANDS,
    LIGHT_MIN,
    RAW,
    SETTLES_MIN,
    DayPiece,
    Doing,
    called,
    heat_needed,
    lit_says,
    on_after,
)
from ravska_core.heat import SURROUNDS, Phase, last_hot

_DOES = {
    "spritz": ("Spritz", 2), "baste": ("Baste", 5), "glaze": ("Glaze", 5), "again": ("Inject again", 10),
    "wrap": ("Into the wrap", 5), "catch": ("Drain the drippings into a bowl", 5),
}  # fmt: skip
"""What is done over the fire, and how long it keeps hands busy [min]."""

_OIL_MIN, _WASH_MIN, _TURN_MIN, _STOKE_MIN = 5, 5, 2, 5

_MOVED, _LIT_SOONER, _WASHED_BY = (20, 20), (25, 0), (0, 30)
"""How much sooner and later what is done over the fire may be, a cooker lit and its grate cleaned, raw washed off."""

_MOST_TURNS, _MOST_LOOKS, _TURNED_APART_S = 12, 6, 600.0

_LOOK_EVERY = ((200.0, 10), (150.0, 15), (0.0, 30))
"""From what heat on [°C] one looks how often [min]."""

Beside = tuple[Within, Doing]


def _beside(
    task: Task, says: str, of: str, after: int, off: tuple[int, int] = (0, 0), only_awake: bool = False,
    step: str = "", layer: int | None = None,
) -> Beside:  # fmt: skip
    return Within(task, of, after, *off, only_awake), Doing(task, says, "beside", "", step, layer)


def _by_hand(key: str, lasts: int) -> Task:
    return Task(key, lasts, (Need(HANDS),), awake=True)


def within_of(piece: DayPiece, doings: Sequence[Doing]) -> tuple[Beside, ...]:
    """Return what is done beside the tasks of a piece, each with how it is said."""
    begun = {one.task.key: one.task.begun for one in doings}
    found: dict[str, Beside] = {}
    for make in (
        _washed(doings),
        _lit_later(piece),
        _reheated(piece),
        _oiled(piece),
        _layers(piece),
        _turned(piece),
        _looks(piece),
    ):
        for one in make:
            of, key = one[0].of, one[1].task.key
            over = begun.get(of) and one[0].after < 0
            if of in begun and not over and key not in piece.ticked:
                found.setdefault(key, one)
    return tuple(found.values())


def _washed(doings: Sequence[Doing]) -> Iterator[Beside]:
    raw = [one for one in doings if RAW in one.task.needs]
    if raw:
        last = raw[-1].task
        says = "Wash hands, knife and board with hot soapy water"
        task = Task("wash", _WASH_MIN, (Need(HANDS), RAW), awake=True)
        yield _beside(task, says, last.key, last.lasts, _WASHED_BY)


def _hot_phases(piece: DayPiece) -> Sequence[tuple[int, Phase]]:
    if piece.heated is None:
        return []
    phases = piece.heated.phases
    return [(at, phases[at]) for at in range(last_hot(phases) + 1)]


def _first_keys(at: int) -> tuple[str, ...]:
    return (f"to.{at}", f"phase.{at}")


def _lit_later(piece: DayPiece) -> Iterator[Beside]:
    """Light what the piece goes to from another cooker, so that it is ready by then."""
    lit, first = set[str](), True
    for at, phase in _hot_phases(piece):
        if not SURROUNDS[phase.surround].hot:
            continue
        key, cooker = piece.cookers[at]
        if not first and key not in lit:
            ready, says = round(cooker.ready_s / 60), f"{lit_says(cooker)}, for later"
            for of in _first_keys(at):
                yield _beside(_by_hand(f"light.{key}", LIGHT_MIN), says, of, -ready, _LIT_SOONER)
        lit.add(key)
        first = False


def _reheated(piece: DayPiece) -> Iterator[Beside]:
    """Take a cooker that it stays on from one heat to another, so that it is there when the next phase begins."""
    before: tuple[str, Phase] | None = None
    for at, phase in _hot_phases(piece):
        if not SURROUNDS[phase.surround].hot:
            continue
        key, cooker = piece.cookers[at]
        # over its flame a fire is as hot as it burns, whatever it is beside it
        same = before is not None and before[0] == key and before[1].surround == phase.surround
        if same and before is not None and not heat_needed(before[1], key).agrees(heat_needed(phase, key)):
            way = "Bring the {} up to" if phase.aimed_c > before[1].aimed_c else "Let the {} come down to"
            says = f"{way.format(called(cooker))} {phase.aimed_c:.0f} °C"
            for of in _first_keys(at):
                yield _beside(_by_hand(f"heat.{at}", _STOKE_MIN), says, of, -SETTLES_MIN, _LIT_SOONER)
        before = key, phase


def _oiled(piece: DayPiece) -> Iterator[Beside]:
    seen = set[str]()
    for at, phase in _hot_phases(piece):
        key, cooker = piece.cookers[at]
        if phase.vessel == "grate" and key not in seen:
            seen.add(key)
            says = f"Brush the {called(cooker)}'s grate clean and oil it"
            for of in _first_keys(at):
                within, doing = _beside(_by_hand(f"oil.{key}", _OIL_MIN), says, of, -_OIL_MIN, _LIT_SOONER)
                yield replace(within, once=True), doing


def _layers(piece: DayPiece) -> Iterator[Beside]:
    """Put on what goes on over the fire, counted back from when it comes off."""
    layers, fire_s = piece.seasoned.layers, on_after(piece) * 60
    of = "off" if piece.heated is not None else "rest"
    wrapped = any(phase.vessel == "foil" for _, phase in _hot_phases(piece))
    for step in usual_steps(layers, fire_s, 0.0):
        if step.layer is None or step.kind not in _DOES or LAYER_KINDS[layers[step.layer].kind].when != "during":
            continue
        if step.kind == "wrap" and wrapped:
            continue  # it goes in as the piece is wrapped, which is a phase
        says, lasts = _DOES[step.kind]
        name = piece.names[step.layer] if piece.names else ""
        says = f"{says} with {name}" if name and step.kind not in ("wrap", "catch") else says
        says = f"{name} into the wrap" if name and step.kind == "wrap" else says
        times = layers[step.layer].times
        sparing = step.kind in ("spritz", "baste")
        for nth in range(times):
            before = round(step.lasts_s / 60 * (1 - nth / times))
            key = f"{step.kind}.{step.layer}" + (f".{nth}" if times > 1 else "")
            after = -before if before else -lasts
            yield _beside(_by_hand(key, lasts), says, of, after, _MOVED, sparing, step.kind if times == 1 else "",
                          step.layer)  # fmt: skip


def _turned(piece: DayPiece) -> Iterator[Beside]:
    """Turn what is turned now and then; what is turned all the while has somebody beside it."""
    if piece.heat is None:
        return
    for at, phase in _hot_phases(piece):
        went = piece.heat.phases[at]
        lasts_s = went.ends_s - went.begins_s
        if phase.turned_s is None or phase.turned_s < _TURNED_APART_S or SURROUNDS[phase.surround].one_side:
            continue
        for nth in range(1, min(_MOST_TURNS, int((lasts_s - 1) // phase.turned_s)) + 1):
            after = round(nth * phase.turned_s / 60)
            task = _by_hand(f"turn.{at}.{nth}", _TURN_MIN)
            yield _beside(task, "Turn it", f"phase.{at}", after, _MOVED, True)


def _looks(piece: DayPiece) -> Iterator[Beside]:
    """Look whether it is done: at the earliest grain first, then as often as the heat warrants.

    Looked at is what ends the last phase that does not end by time alone; the phases after it take as long as they do.
    """
    heat = piece.heat
    if heat is None or heat.done_s is None or piece.heated is None:
        return
    known = [one for one in heat.done if one is not None]
    if not known or known[0] >= known[-1]:
        return
    at, last = next(
        ((at, phase) for at, phase in reversed(_hot_phases(piece)) if phase.open_ended), _hot_phases(piece)[-1]
    )  # fmt: skip
    after_s = heat.phases[last_hot(piece.heated.phases)].ends_s - heat.phases[at].ends_s
    checks = [f"is its centre at {last.centre_c:.0f} °C"] if last.centre_c is not None else []
    checks += [f"is it {last.feel}"] if last.feel else []
    checks += [f"is it {last.colour}"] if last.colour else []
    dry = last.vessel not in ("foil", "pot", "bag") and not SURROUNDS[last.surround].wet
    says = f"Look: {' or '.join(checks) or 'is it done'}?" + (" Where it looks dry, spritz it." if dry else "")
    usual = next(often for heat_c, often in _LOOK_EVERY if last.aimed_c >= heat_c)
    first, done = round((known[0] - after_s) / 60), round(heat.done_s / 60)
    until = max(first + 1, done - round(after_s / 60))
    # more looks than are told lie further apart, not all at the beginning
    every = max(usual, math.ceil((until - first) / _MOST_LOOKS))
    for nth, after in enumerate(range(first, until, every)):
        task = Task(f"look.{nth}", 0, awake=True)
        for of in _first_keys(0):
            yield _beside(task, says, of, after, only_awake=True)
        yield _beside(task, says, "off", after - done, only_awake=True)
