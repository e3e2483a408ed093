"""A piece of meat: its shape by weight or measure, the surface a coat lies on, what of it is eaten."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from ravska_core.catalogue import FACES, THICKNESSES, Bone, Cut
from ravska_core.meat.cuts import CUT_INTO, FACE_STATES, GRADES, MOST_BONES, find_cut
from ravska_core.meat.shapes import (
    LIVE_PER_READY,
    Solid,
    poultry_skin_area_cm2,
    solid_of_dimensions,
    solid_of_equal_pieces,
    solid_of_mass,
)
from ravska_core.meat.stages import STAGES, Stage, check_place
from ravska_core.meat.unlike import OnePiece, check_unlike, one_by_one
from ravska_core.working import BadInput, Figure, Step, figure, in_range, say

AREA_ERROR_BY_WEIGHT, AREA_ERROR_MEASURED = 0.15, 0.08

MISMATCH = 0.25

BREAST_SHARE = 0.28
"""Thickness of a bird's breast, from the skin to the bone, over the height of the whole bird (estimate)."""


@dataclass(frozen=True)
class Measures:
    """Measured outer dimensions of one piece [cm]."""

    length_cm: float
    width_cm: float
    thickness_cm: float


@dataclass(frozen=True)
class Piece:
    """Meat on the board: cut by key, trimmed raw weight of all pieces [g], how many, and what is known of it.

    `masses_g` is what each of them weighs, where they were weighed one by one [g], none where they are alike.
    `untrimmed_g` is the weight before trimming [g]; `faces` says what is done with each face (usually left bare);
    `surface` is moist, or dry when patted; `cut_into` cubes, strips or steaks of `cut_cm` [cm]; `thin_cm` is the
    thickness of its thin end [cm]. `endpoint_c` is the centre temperature it is to reach [C]; `pierced` says that it
    is needled, rolled or deeply scored, `bones` where its bones lie when not as usual for the cut. `stages` are what
    it goes through beside its layers: how it was thawed, how long it was out before the fire.
    """

    cut: str
    mass_g: float
    count: int = 1
    untrimmed_g: float | None = None
    grade: str = "ordinary"
    faces: Mapping[str, str] = field(default_factory=dict)
    surface: str = "moist"
    measures: Measures | None = None
    cut_into: str = ""
    cut_cm: float | None = None
    thin_cm: float | None = None
    endpoint_c: float | None = None
    pierced: bool = False
    bones: tuple[Bone, ...] = ()
    stages: tuple[Stage, ...] = ()
    masses_g: tuple[float, ...] = ()


@dataclass(frozen=True)
class FaceReading:
    """A face of a piece: its name, what is done with it, and its area [cm2]."""

    name: str
    state: str
    area_cm2: float


@dataclass(frozen=True)
class PieceShown:
    """A piece as a solid, as it is shown: surface to coat, edible weight, its ends, anything about it to be asked.

    `coatable` is all that takes a coat, `open_cm2` the part of it where seasoning reaches the meat; `thin_cm` and
    `thick_cm` are the thickness of its ends [cm], `meat_cm` that of its meat: of a hollow bird its breast, from the
    skin to the bone. `bones` lie as the cook says, or as usual for the cut. `each` is every piece of several that were
    weighed one by one; `covers` says what the raw weight covers; `usual_edge_cm` is the edge it is usually cut to [cm].
    """

    solid: Solid
    coatable: Figure
    open_cm2: float
    faces: tuple[FaceReading, ...]
    edible: Figure
    trimmed_g: float
    thin_cm: float
    thick_cm: float
    meat_cm: float
    question: str
    bones: tuple[Bone, ...]
    each: tuple[OnePiece, ...] = field(kw_only=True, default=())
    usual_edge_cm: float = field(kw_only=True, default=0.0)
    covers: str = field(kw_only=True, default="")


@dataclass(frozen=True)
class PieceReading(PieceShown):
    """A piece with all that is reckoned further from it: `water_share` and `cook_yield` are mass fractions.

    `yield_from` is the source of the yield.
    """

    water_share: float
    cook_yield: float
    area_error: float
    how: str
    yield_from: str = field(kw_only=True, default="estimate")

    @property
    def thickness(self) -> str:
        """Class of its thickness: thin, medium or thick."""
        return next(name for name, most in THICKNESSES.items() if self.meat_cm <= most)


def _cut_up(piece: Piece, density: float, joint: Solid) -> tuple[Solid, str]:
    """Return a joint cut into cubes, strips or steaks as equal pieces."""
    size = piece.cut_cm or 0.0
    if piece.cut_into == "steaks":
        # every cut bares its two sides; slices of a joint are as long as its middle is wide
        slices = max(1.0, joint.length_cm / size)
        section = joint.volume_cm3 / joint.pieces / joint.length_cm
        area = joint.area_cm2 + 2 * (slices - 1) * section * joint.pieces
        count = max(1, round(slices)) * joint.pieces
        wide, high = joint.width_cm, section / joint.width_cm
        return (
            Solid("steaks", wide, max(high, 0.1), size, count, area, joint.volume_cm3),
            f"slices of {size:g} cm, each cut baring two sides of {section:.0f} cm²",
        )
    length = size if piece.cut_into == "cubes" else 4 * size
    solid = solid_of_equal_pieces(piece.cut_into, piece.mass_g, density, length, size, size)
    return solid, f"{piece.cut_into} of {length:g} × {size:g} × {size:g} cm"


def _solid(cut: Cut, piece: Piece, density: float) -> tuple[Solid, float, str, str]:
    """Return the solid, the relative error of its area, how it was found, and a question if measures contradict."""
    if piece.measures is not None:
        m = piece.measures
        shape = cut.shape if cut.shape not in ("cubes", "strips") else "box"
        solid = solid_of_dimensions(shape, m.length_cm, m.width_cm, m.thickness_cm, piece.count)
        by_measure = solid.volume_cm3 * density
        if shape == "bird":
            skin = poultry_skin_area_cm2(piece.mass_g / piece.count * LIVE_PER_READY) * piece.count
            solid = replace(solid, area_cm2=skin)
        question = ""
        # the cavity of a bird is measured too, so its outside says little about its weight
        if shape != "bird" and abs(by_measure / piece.mass_g - 1) > MISMATCH:
            question = (
                f"These measurements would weigh {by_measure / 1000:.2f} kg, the scale says "
                f"{piece.mass_g / 1000:.2f} kg: measure again, or clear them to go by weight."
            )
        return solid, AREA_ERROR_MEASURED, "from its measured length, width and thickness", question
    if cut.unit_cm is not None:
        unit = cut.unit_cm
        solid = solid_of_equal_pieces(
            cut.shape, piece.mass_g, density, cut.length * unit, cut.width * unit, cut.thickness * unit
        )
        return solid, AREA_ERROR_MEASURED, "equal pieces of fixed size", ""
    solid = solid_of_mass(cut.shape, piece.mass_g, density, cut.length, cut.width, cut.thickness, piece.count)
    proportions = f"{cut.length:g} : {cut.width:g} : {cut.thickness:g}"
    each = piece.mass_g / piece.count
    question = ""
    if not cut.usual_low_g / 2 <= each <= cut.usual_high_g * 2:
        question = (
            f"{each / 1000:.2f} kg is far from the usual {cut.usual_low_g / 1000:g} to "
            f"{cut.usual_high_g / 1000:g} kg of {cut.name.lower()}: check the weight, the count and the cut."
        )
    return solid, max(AREA_ERROR_BY_WEIGHT, cut.area_error), f"{cut.shape} {proportions}", question


EDGE_CM, LEAST_EDGE_CM = 3.5, 0.5
"""Edge of cubes and strips for skewers and pots, and the least [cm] (common practice, no source)."""


def usual_edge_cm(joint: Solid) -> float:
    """Return the edge a joint is usually cut into cubes or strips of [cm]: down to what it is thick."""
    return max(LEAST_EDGE_CM, min(EDGE_CM, math.floor(joint.thickness_cm * 2) / 2))


def _covers(cut: Cut, piece: Piece, faces: Sequence[FaceReading]) -> str:
    """Say what the raw weight covers: all pieces together, after trimming, with bone, skin and fat, or without."""
    on = [f"its bone ({cut.bone_share * 100:.0f} %)"] if cut.bone_share else []
    on += [f"its {face.name}" for face in faces if face.state != "off"]
    off = [f"its {face.name}" for face in faces if face.state == "off"]
    said = ["Weigh what goes on the board: after trimming"]
    said += [f"with {_listed(on)}"] if on else []
    said += [f"without {_listed(off)}"] if off else []
    several = f"; all {piece.count} together" if piece.count > 1 else ""
    return f"{', '.join(said)}{several}."


def _listed(names: Sequence[str]) -> str:
    return " and ".join([", ".join(names[:-1]), names[-1]] if len(names) > 1 else names)


def _faces(cut: Cut, piece: Piece, solid: Solid, whole_cm2: float) -> tuple[FaceReading, ...]:
    """Return the faces of a piece; a membrane of a rack covers one large face of its box."""
    found = []
    for name, share in cut.faces:
        area = share * whole_cm2 if share else solid.pieces * solid.length_cm * solid.width_cm
        # a bird is coated as it comes, on its skin; what else keeps seasoning off the meat is usually left bare
        usual = "coated" if cut.shape == "bird" and name == "skin" else "bare"
        found.append(FaceReading(name, piece.faces.get(name, usual), area))
    return tuple(found)


def _checked(cut: Cut, piece: Piece) -> None:
    """Refuse what a piece cannot be, at its field."""
    in_range("piece.mass_g", piece.mass_g, 1, 100_000, "A weight here lies between 1 g and 100 kg; check the unit.")
    if not 1 <= piece.count <= 200:
        raise BadInput("piece.count", "Count the pieces: a whole number from 1 to 200.")
    if piece.masses_g and len(piece.masses_g) != piece.count:
        said = f"These are {len(piece.masses_g)} weights of {piece.count} pieces; write one for each, or one for all."
        raise BadInput("piece.mass_g", said)
    check_unlike(piece.masses_g)
    if piece.untrimmed_g is not None:
        sentence = "Before trimming it weighs at least as much as after, and at most four times that; check both."
        in_range("piece.untrimmed_g", piece.untrimmed_g, piece.mass_g, 4 * piece.mass_g, sentence)
    if piece.grade not in GRADES:
        raise BadInput("piece.grade", f"A grade is one of {', '.join(GRADES)}.")
    if piece.surface not in ("moist", "dry"):
        raise BadInput("piece.surface", "The surface is moist, or dry when it was patted.")
    if piece.endpoint_c is not None:
        in_range(
            "piece.endpoint_c", piece.endpoint_c, 30, 100, "A centre is done between 30 and 100 °C (86 and 212 °F)."
        )
    if len(piece.bones) > MOST_BONES:
        raise BadInput("piece.bones", f"At most {MOST_BONES} bones are drawn; leave the smallest out.")
    for bone in piece.bones:
        ends = (bone.x0, bone.y0, bone.x1, bone.y1)
        if not all(0 <= end <= 1 for end in ends) or not 0.01 <= bone.wide <= 0.6:
            sentence = "A bone lies inside the piece, and is at most 0.6 of it wide; drag it back onto the meat."
            raise BadInput("piece.bones", sentence)
    _check_faces(piece)
    _check_stages(piece)
    if piece.measures is not None:
        for name in ("length_cm", "width_cm", "thickness_cm"):
            sentence = "A length here lies between 2 mm and 2 m; check the unit."
            in_range(f"piece.measures.{name}", getattr(piece.measures, name), 0.2, 200, sentence)
    if piece.cut_into:
        if piece.cut_into not in CUT_INTO:
            raise BadInput("piece.cut_into", f"A joint is cut into {', '.join(CUT_INTO)}.")
        if cut.unit_cm is not None:
            raise BadInput(
                "piece.cut_into", f"{cut.name} is cut up already; choose the whole joint to cut it yourself."
            )
        in_range("piece.cut_cm", piece.cut_cm or 0.0, LEAST_EDGE_CM, 15, "Pieces are cut between 5 mm and 15 cm.")


def _check_faces(piece: Piece) -> None:
    for name, state in piece.faces.items():
        # a face that a former cut had and this one has not does not count
        if state not in FACE_STATES or name not in FACES:
            sentence = f"Name a face ({', '.join(FACES)}) and what is done with it: {', '.join(FACE_STATES)}."
            raise BadInput("piece.faces", sentence)
        if state == "under" and name != "skin":
            raise BadInput("piece.faces", f"Only skin can be lifted to season under it; choose otherwise for {name}.")


def _check_stages(piece: Piece) -> None:
    if len(piece.stages) > len(STAGES):
        raise BadInput("piece.stages", "Raw meat is thawed once and taken out once; put the times together.")
    for at, stage in enumerate(piece.stages):
        if stage.what not in STAGES:
            raise BadInput(f"piece.stages.{at}.what", f"Beside its layers it goes through: {', '.join(STAGES)}.")
        if not 0 < stage.lasts_s <= 7 * 86_400:
            raise BadInput(f"piece.stages.{at}.lasts_s", "Write how long, for example 45 min or 16 h, at most 7 days.")
        try:
            check_place(stage.place, stage.celsius)
        except BadInput as refusal:
            raise refusal.under(f"piece.stages.{at}") from refusal


def read_piece(piece: Piece, of: Cut | None = None) -> PieceReading:
    """Determine the surface to coat and the edible weight of a piece, of the cut it names or of one that is given.

    Edible weight = raw trimmed weight x (1 - bone share). Coatable = surface less the faces left bare; open is what
    is neither bare nor coated over something that keeps seasoning off.

    Raises
    ------
    BadInput
        For an unknown cut, a weight outside 1 g to 100 kg, a count outside 1 to 200, and whatever else it cannot be.
    """
    cut = find_cut(piece.cut) if of is None else of
    _checked(cut, piece)
    grade = GRADES[piece.grade]
    density = cut.density * grade.density_factor
    joint, spread, how, question = _solid(cut, piece, density)
    joint, each = one_by_one(cut, piece.masses_g, joint)
    solid = joint
    if piece.cut_into:
        smallest = min(joint.width_cm, joint.thickness_cm) if piece.cut_into != "steaks" else joint.length_cm
        if (piece.cut_cm or 0) > smallest:
            raise BadInput("piece.cut_cm", f"This joint is only {smallest:.1f} cm there; cut it smaller.")
        solid, how = _cut_up(piece, density, joint)
    faces = _faces(cut, piece, joint, joint.area_cm2)
    bare = sum(found.area_cm2 for found in faces if found.state == "bare")
    covered = sum(found.area_cm2 for found in faces if found.state == "coated")
    coatable = solid.area_cm2 - bare
    live_g = piece.mass_g / piece.count * LIVE_PER_READY
    steps = [
        Step("Volume", f"{piece.mass_g:.0f} g at {say(density, 3)} g/cm³", piece.mass_g / density, "cm³", "density"),
        Step(
            "Size of one piece",
            f"{how}: {solid.length_cm:.1f} × {solid.width_cm:.1f} × {solid.thickness_cm:.1f} cm",
            solid.volume_cm3 / solid.pieces,
            "cm³",
            cut.source,
        ),
        Step(
            "Whole surface",
            {
                "bird": f"8.19 × (live weight: dressed / 0.72 = {live_g:.0f} g)^0.705",
                "box": "2 (lw + lt + wt)",
                "rack": "2 (lw + lt + wt)",
                "cubes": "6 edge² a cube, by count",
                "strips": "2 (lw + lt + wt) a strip, by count",
                "steaks": f"{joint.area_cm2:.0f} cm² of the joint, and two sides a cut",
                "cylinder": "π d l + π d² / 2",
            }.get(solid.shape, "exact, by elliptic integrals"),
            solid.area_cm2,
            "cm²",
            {"bird": "mitchell", "ellipsoid": "dlmf"}.get(solid.shape, "arithmetic"),
        ),
    ]
    for found in faces:
        if found.state == "bare":
            steps.append(
                Step(
                    f"Less the {found.name}, left bare",
                    "the share of it on this cut",
                    -found.area_cm2,
                    "cm²",
                    cut.source,
                )
            )
    steps.append(Step("Surface to coat", "what is left", coatable, "cm²"))
    edible = piece.mass_g * (1 - cut.bone_share)
    bone = Step(
        "Edible raw weight",
        f"{piece.mass_g:.0f} g × (1 − {cut.bone_share:g} bone)" if cut.bone_share else "no bone",
        edible,
        "g",
        cut.source,
    )
    error = f"±{spread * 100:.0f} %: " + ("measured" if spread == AREA_ERROR_MEASURED else "from the weight alone")
    thin = (
        piece.thin_cm if piece.thin_cm is not None else solid.thickness_cm * (1 if piece.cut_into else cut.thin_share)
    )
    if piece.thin_cm is not None:
        sentence = f"The thin end is thinner than the middle, {solid.thickness_cm:.1f} cm; measure again."
        in_range("piece.thin_cm", piece.thin_cm, 0.2, solid.thickness_cm * 1.001, sentence)
    return PieceReading(
        solid=solid,
        coatable=figure(steps, error, spread=spread),
        open_cm2=coatable - covered,
        faces=faces,
        edible=figure([bone], "±5 % of the bone share", spread=0.05 * cut.bone_share),
        trimmed_g=0.0 if piece.untrimmed_g is None else piece.untrimmed_g - piece.mass_g,
        thin_cm=thin,
        thick_cm=2 * solid.thickness_cm - thin,
        meat_cm=BREAST_SHARE * solid.thickness_cm if solid.shape == "bird" else solid.thickness_cm,
        water_share=grade.water_share,
        cook_yield=min(0.95, cut.cook_yield + grade.yield_points),
        area_error=spread,
        how=how,
        question=question,
        bones=(piece.bones or cut.bones) if not piece.cut_into else (),
        each=each if not piece.cut_into else (),
        usual_edge_cm=usual_edge_cm(joint),
        covers=_covers(cut, piece, faces),
    )
