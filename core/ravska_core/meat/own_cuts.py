"""Cuts of the cook's own: the nearest cut and shape, three measures, bone, faces and what comes off."""

from dataclasses import dataclass, replace

from ravska_core.catalogue import FACES, SHAPES, TRIM_BECOMES, Cut, Trim, shipped
from ravska_core.cautions import ANIMAL_CLASSES
from ravska_core.meat.pieces import AREA_ERROR_BY_WEIGHT, Measures
from ravska_core.meat.shapes import Solid, solid_of_dimensions
from ravska_core.working import BadInput, in_range

USUAL_SPAN = (0.6, 1.6)
"""Usual weights of an own cut, over the one that was measured (estimate)."""

MOST_BETWEEN = 2.0
"""How far weight and measures may lie apart before one of them is in the wrong unit."""

AREA_OF_VOLUME = 2 / 3
"""What a relative error of the volume is worth in the area of like solids: A goes with V^(2/3)."""

MOST_FACES, MOST_TRIMS, MOST_TRIMMED = 0.95, 6, 0.5

_ROUNDED = 1e-9
"""What shares that are added up may be above the whole by rounding."""

EQUAL_PIECES = ("cubes", "strips")


@dataclass(frozen=True)
class OwnCut:
    """A cut of the cook's own: key, name and the cut of the catalogue that it is nearest to, in all that is not given.

    `shape` and `animal` are "" for as that; `measures` are those of one piece [cm] and `mass_g` what it weighed
    trimmed [g]. `bone_share` is the bone's share of that weight, `faces` each with its share of the whole surface (0
    for a large side of a rack), `trims` what comes off as bought; None for as the nearest.
    """

    key: str
    name: str
    like: str
    shape: str = ""
    animal: str = ""
    measures: Measures | None = None
    mass_g: float | None = None
    bone_share: float | None = None
    faces: tuple[tuple[str, float], ...] | None = None
    trims: tuple[Trim, ...] | None = None


def cut_of_own(own: OwnCut) -> Cut:
    """Return an own cut as a cut, like those of the catalogue.

    Its surface is uncertain as one found by weight is, or by two thirds of what weight and measures lie apart.

    Raises
    ------
    BadInput
        At ``name``, ``like``, ``shape``, ``animal``, a measure, ``mass_g``, ``bone_share``, ``faces`` or ``trims``.
    """
    like = shipped().cuts.get(own.like)
    if not own.name.strip():
        raise BadInput("name", "Give it a name.")
    if like is None:
        raise BadInput(
            "like", "Choose the cut of the catalogue that it is nearest to; your own ones differ by themselves."
        )
    if own.shape and own.shape not in SHAPES:
        raise BadInput("shape", f"A shape is one of {', '.join(SHAPES)}.")
    if own.animal and own.animal not in ANIMAL_CLASSES:
        raise BadInput("animal", f"An animal is one of {', '.join(ANIMAL_CLASSES)}.")
    if own.shape not in ("", like.shape) and own.measures is None:
        raise BadInput("length", f"Measure one piece: it is shaped otherwise than {like.name.lower()}.")
    made = replace(
        like, key=own.key, name=own.name.strip(), other_names=(), animal=own.animal or like.animal,
        shape=own.shape or like.shape, source="own-cut", like=own.like if own.shape in ("", like.shape) else "",
    )  # fmt: skip
    if own.bone_share is not None:
        in_range("bone_share", own.bone_share, 0, 0.6, "Bone is between none and 60 % of the weight.")
        made = replace(made, bone_share=own.bone_share)
    if made.shape != like.shape or not made.bone_share:
        made = replace(made, bones=())
    if own.faces is not None:
        made = replace(made, faces=_faces(own.faces))
    if own.trims is not None:
        made = replace(made, trims=_trims(own.trims))
    if own.mass_g is not None:
        in_range("mass_g", own.mass_g, 1, 100_000, "A weight here lies between 1 g and 100 kg; check the unit.")
    return _measured(own, made) if own.measures is not None else _weighed(own, made)


def _faces(faces: tuple[tuple[str, float], ...]) -> tuple[tuple[str, float], ...]:
    for name, share in faces:
        if name not in FACES:
            raise BadInput("faces", f"A face is one of {', '.join(FACES)}.")
        in_range("faces", share, 0, 0.9, f"The {name} is between 0 and 90 % of the whole surface.")
    if len({name for name, _ in faces}) < len(faces):
        raise BadInput("faces", "Name each face once.")
    if sum(share for _, share in faces) > MOST_FACES + _ROUNDED:
        raise BadInput("faces", "The faces cover the whole of it; leave some meat bare.")
    return faces


def _trims(trims: tuple[Trim, ...]) -> tuple[Trim, ...]:
    if len(trims) > MOST_TRIMS:
        raise BadInput("trims", f"Name at most {MOST_TRIMS} things that come off; put the smallest together.")
    for trim in trims:
        if not trim.what.strip():
            raise BadInput("trims", "Say what comes off.")
        if trim.becomes not in TRIM_BECOMES:
            raise BadInput("trims", f"What comes off becomes one of {', '.join(TRIM_BECOMES)}.")
        in_range("trims", trim.share, 0.001, MOST_TRIMMED, "What comes off is between 0.1 and 50 % as bought.")
    if sum(trim.share for trim in trims) > MOST_TRIMMED + _ROUNDED:
        raise BadInput("trims", "More than half of it comes off; call what is left the cut.")
    return trims


def _weighed(own: OwnCut, made: Cut) -> Cut:
    if own.mass_g is None or made.unit_cm is not None:
        return made
    return replace(made, usual_low_g=own.mass_g * USUAL_SPAN[0], usual_high_g=own.mass_g * USUAL_SPAN[1])


def solid_of_own(own: OwnCut, made: Cut) -> Solid | None:
    """Return the solid that an own cut's measures make, where it was measured."""
    if own.measures is None:
        return None
    m = own.measures
    return solid_of_dimensions(made.shape, m.length_cm, m.width_cm, m.thickness_cm)


def _measured(own: OwnCut, made: Cut) -> Cut:
    assert own.measures is not None
    m = own.measures
    for name in ("length", "width", "thickness"):
        sentence = "A length here lies between 2 mm and 2 m; check the unit."
        in_range(name, getattr(m, f"{name}_cm"), 0.2, 200, sentence)
    solid = solid_of_own(own, made)
    assert solid is not None
    by_measure = solid.volume_cm3 * made.density
    mass = own.mass_g if own.mass_g is not None else by_measure
    # the cavity of a bird is measured too, so its outside says little about its weight
    apart = 1.0 if made.shape == "bird" else by_measure / mass
    if not 1 / MOST_BETWEEN <= apart <= MOST_BETWEEN:
        raise BadInput(
            "mass_g",
            f"As a {made.shape} these measures would weigh {by_measure / 1000:.2f} kg, not {mass / 1000:.2f} kg: check "
            "the units, or choose another shape.",
        )
    made = replace(
        made, length=m.length_cm, width=m.width_cm, thickness=m.thickness_cm, unit_cm=None,
        area_error=max(AREA_ERROR_BY_WEIGHT, AREA_OF_VOLUME * abs(apart - 1)),
    )  # fmt: skip
    if made.shape in EQUAL_PIECES:
        return replace(made, unit_cm=1.0)
    return replace(made, usual_low_g=mass * USUAL_SPAN[0], usual_high_g=mass * USUAL_SPAN[1])
