"""Pieces of meat: which solid a cut is, how much of it there is to coat, and how much of it is eaten."""

from dataclasses import dataclass

from ravska_core.catalogue import Catalogue, Cut, catalogue
from ravska_core.shapes import Solid, solid_of_dimensions, solid_of_equal_pieces, solid_of_mass
from ravska_core.working import BadInput, Figure, Step, figure, in_range

AREA_ERROR_BY_WEIGHT, AREA_ERROR_MEASURED = 0.15, 0.08
MISMATCH = 0.25


@dataclass(frozen=True)
class Measures:
    """Measured outer dimensions of one piece [cm]."""

    length_cm: float
    width_cm: float
    thickness_cm: float


@dataclass(frozen=True)
class Piece:
    """Meat on the board: cut by key, raw weight of all pieces [g], how many, and what was measured."""

    cut: str
    mass_g: float
    count: int = 1
    coat_bare_face: bool = False
    measures: Measures | None = None


@dataclass(frozen=True)
class PieceReading:
    """A piece as a solid: surface to coat, edible weight, and anything about it to be asked."""

    solid: Solid
    coatable: Figure
    bare_face: str
    bare_area_cm2: float
    edible: Figure
    question: str


def _solid(cut: Cut, piece: Piece) -> tuple[Solid, float, str, str]:
    """Return the solid, the relative error of its area, how it was found, and a question if measures contradict."""
    if piece.measures is not None:
        m = piece.measures
        shape = cut.shape if cut.shape not in ("cubes", "strips") else "box"
        solid = solid_of_dimensions(shape, m.length_cm, m.width_cm, m.thickness_cm, piece.count)
        by_measure = solid.volume_cm3 * cut.density
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
            cut.shape, piece.mass_g, cut.density, cut.length * unit, cut.width * unit, cut.thickness * unit
        )
        return solid, AREA_ERROR_MEASURED, "equal pieces of fixed size", ""
    solid = solid_of_mass(cut.shape, piece.mass_g, cut.density, cut.length, cut.width, cut.thickness, piece.count)
    proportions = f"{cut.length:g} : {cut.width:g} : {cut.thickness:g}"
    each = piece.mass_g / piece.count
    question = ""
    if not cut.usual_low_g / 2 <= each <= cut.usual_high_g * 2:
        question = (
            f"{each / 1000:.2f} kg is far from the usual {cut.usual_low_g / 1000:g} to "
            f"{cut.usual_high_g / 1000:g} kg of {cut.name.lower()}: check the weight, the count and the cut."
        )
    return solid, AREA_ERROR_BY_WEIGHT, f"{cut.shape} {proportions}", question


def _bare_area_cm2(cut: Cut, solid: Solid) -> float:
    """Return the area [cm2] under the cut's skin, fat cap or bone side; a rack's bone side is one face of its box."""
    if cut.shape == "rack":
        return solid.pieces * solid.length_cm * solid.width_cm
    return cut.bare_share * solid.area_cm2


def find_cut(key: str, tables: Catalogue | None = None) -> Cut:
    """Look up a cut, or refuse with a sentence at the field ``piece.cut``."""
    cut = (tables or catalogue()).cuts.get(key)
    if cut is None:
        raise BadInput("piece.cut", "This cut is not in the catalogue any more; choose another.")
    return cut


def read_piece(piece: Piece, tables: Catalogue | None = None) -> PieceReading:
    """Determine the surface to coat and the edible weight of a piece.

    Edible weight = raw weight x (1 - bone share). Coatable = surface less the bare face.

    Raises
    ------
    BadInput
        For an unknown cut, a weight outside 1 g to 100 kg or a count outside 1 to 200.
    """
    cut = find_cut(piece.cut, tables)
    in_range("piece.mass", piece.mass_g, 1, 100_000, "A weight here lies between 1 g and 100 kg; check the unit.")
    if not 1 <= piece.count <= 200:
        raise BadInput("piece.count", "Count the pieces: a whole number from 1 to 200.")
    if piece.measures is not None:
        for name in ("length_cm", "width_cm", "thickness_cm"):
            sentence = "A length here lies between 2 mm and 2 m; check the unit."
            in_range(f"piece.measures.{name}", getattr(piece.measures, name), 0.2, 200, sentence)
    solid, spread, how, question = _solid(cut, piece)
    bare = _bare_area_cm2(cut, solid)
    coatable = solid.area_cm2 if piece.coat_bare_face else solid.area_cm2 - bare
    steps = [
        Step("Volume", f"{piece.mass_g:.0f} g at {cut.density:g} g/cm³", piece.mass_g / cut.density, "cm³", "density"),
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
                "bird": "8.19 × (live weight in g)^0.705",
                "box": "2 (lw + lt + wt)",
                "rack": "2 (lw + lt + wt)",
                "cubes": "6 edge² a cube, by count",
                "strips": "2 (lw + lt + wt) a strip, by count",
                "cylinder": "π d l + π d² / 2",
            }.get(cut.shape, "exact, by elliptic integrals"),
            solid.area_cm2,
            "cm²",
            {"bird": "mitchell", "ellipsoid": "dlmf"}.get(cut.shape, "arithmetic"),
        ),
    ]
    if cut.bare_face and not piece.coat_bare_face:
        steps.append(
            Step(f"Less the {cut.bare_face}, left bare", "the share of it on this cut", -bare, "cm²", cut.source)
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
    return PieceReading(
        solid=solid,
        coatable=figure(steps, error, spread=spread),
        bare_face=cut.bare_face,
        bare_area_cm2=bare,
        edible=figure([bone], "±5 % of the bone share", spread=0.05 * cut.bone_share),
        question=question,
    )
