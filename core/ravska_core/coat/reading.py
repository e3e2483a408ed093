"""What a coat comes to on a piece: doses, where their salt ends, a serving, the core sample, cautions."""

from dataclasses import dataclass, replace

from ravska_core.cautions import Caution, Situation
from ravska_core.coat.additives import nitrite_of, phosphate_percent
from ravska_core.coat.core_sample import CoreSample, core_sample
from ravska_core.coat.doses import ADHESION_ERROR, salt_zone
from ravska_core.coat.layer_reading import (
    LayerReading,
    LayerShown,
    aside_words,
    corrected_words,
    injection_of_put,
    layer_reading,
)
from ravska_core.coat.layers import INJECTIONS
from ravska_core.coat.ledger import a_serving, servings_of, thin_end, total_salt
from ravska_core.coat.situations import cautions_of
from ravska_core.coat.stack import Seasoned, Stack
from ravska_core.coat.target import dose_stack, usually_gives
from ravska_core.diffusion import DIFFUSIVITY_BAND
from ravska_core.measure import SPOON_SETS, SpoonSet
from ravska_core.meat import CutUp, PieceShown, cutting, find_cut
from ravska_core.working import Figure


@dataclass(frozen=True)
class CoatReading:
    """What a piece comes to: its piece, its layers, the ledger of its salt, a serving, the core sample, cautions.

    `each` is the salt of each of several pieces of unlike weight [% of its own raw edible weight].
    `gives` is the place of the layer that usually gives way to a target, None where one takes the rest already.
    """

    letter: str
    piece: PieceShown
    cut_up: CutUp | None
    layers: tuple[LayerShown, ...]
    salt: Figure
    zone: str
    target: float | None
    gives: int | None
    thin: Figure
    each: tuple[float, ...]
    servings: Figure
    sodium: Figure
    sugar: Figure
    sample: CoreSample | None
    cautions: tuple[Caution, ...]


def read_coat(
    seasoned: Seasoned,
    spoon_set: SpoonSet = SPOON_SETS["us"],
    at_s: float | None = None,
    cored: bool = True,
) -> CoatReading:
    """Determine what one piece comes to: doses, where its salt ends, the core sample and cautions.

    Parameters
    ----------
    at_s : float, optional
        Time of the hold that the core sample is taken at [s]; its end when none is given.
    cored : bool
        Whether a core sample is wanted.

    Raises
    ------
    BadInput
        At ``piece.…``, ``target`` or ``layers.N.…``, with a sentence that says what to do.
    """
    return read_stack(seasoned, spoon_set, at_s, cored)[0]


def check_coat(seasoned: Seasoned, spoon_set: SpoonSet = SPOON_SETS["us"]) -> None:
    """Refuse a coat that cannot be read, without reading it: its piece, its doses, its injections and any cure.

    Raises
    ------
    BadInput
        As `read_coat` does.
    """
    stack, _ = dose_stack(seasoned, spoon_set)
    if any(put.blend is not None and "cure" in put.blend.flags for put in stack.puts):
        read_stack(seasoned, spoon_set, cored=False)  # how much nitrite stays is known only at the end
        return
    for at, put in enumerate(stack.puts):
        if put.layer.kind in INJECTIONS:
            injection_of_put(put, stack, seasoned, at)


def read_stack(
    seasoned: Seasoned,
    spoon_set: SpoonSet = SPOON_SETS["us"],
    at_s: float | None = None,
    cored: bool = True,
) -> tuple[CoatReading, Stack]:
    """Return what `read_coat` does, with the stack it was read from."""
    stack, notes = dose_stack(seasoned, spoon_set)
    piece, puts = stack.piece, stack.puts
    cut = find_cut(seasoned.piece.cut)
    moment = stack.follow()
    percents = stack.percent(moment)
    band = [stack.percent(stack.follow(factor)) for factor in DIFFUSIVITY_BAND]
    servings = servings_of(piece, seasoned.portion_g)
    layers: list[LayerReading] = []
    so_far = clock = 0.0
    room = stack.sticks(1 - ADHESION_ERROR), stack.sticks(1 + ADHESION_ERROR)
    for at, put in enumerate(puts):
        so_far += float(percents[at])
        spread = [float(values[at]) for values in band]
        note = notes.get(at) or stack.notes[at]
        stuck = room[0][at], room[1][at]
        read = layer_reading(put, stack, at, moment.fates[at], spread, stuck, cut.meat_class, spoon_set)
        rest = None if seasoned.target_percent is None else seasoned.target_percent - so_far
        injected = injection_of_put(put, stack, seasoned, at) if put.layer.kind in INJECTIONS else None
        says = f"{aside_words(put, stack, moment.fates[at], servings.value)} {corrected_words(put)}".strip()
        layers.append(replace(read, so_far=so_far, rest=rest, note=note, says=says, injection=injected, begins_s=clock))
        if put.kind.when == "before" and put.kind.hold_s:
            clock += put.layer.hold_s
    stays = [fate.stays for fate in moment.fates]
    nitrite = nitrite_of(puts, stays, seasoned.piece.mass_g, seasoned.piece.cut)
    salt = total_salt([layer.salt for layer in layers], puts, [layer.doubts for layer in layers])
    thin_value, more = stack.thin_percent()
    thin = thin_end(piece, salt, thin_value, more)
    sodium, sugar = a_serving(puts, moment, servings.value)
    reading = CoatReading(
        letter=seasoned.letter,
        piece=piece,
        cut_up=cutting(seasoned.piece),
        layers=tuple(layers),
        salt=salt,
        zone=salt_zone(salt.value),
        target=seasoned.target_percent,
        gives=None if any(layer.takes_rest for layer in seasoned.layers) else usually_gives(seasoned.layers),
        thin=thin,
        each=stack.each_percent(),
        servings=servings,
        sodium=sodium,
        sugar=sugar,
        sample=core_sample(stack, seasoned, at_s) if cored else None,
        cautions=cautions_of(
            seasoned, layers, puts, stack,
            Situation(
                animal=cut.animal,
                minced=cut.minced,
                fire_s=cut.fire_min * 60 if stack.fire is None else stack.fire.off_s,
                fired=stack.fire is not None,
                salt_percent=salt.value,
                thin_percent=thin.value,
                sodium_mg=sodium.value,
                phosphate_percent=phosphate_percent(puts, stays, seasoned.piece.mass_g),
            ),
            nitrite,
        ),
    )  # fmt: skip
    return reading, stack
