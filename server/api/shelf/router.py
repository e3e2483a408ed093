"""Shelf: the catalogue, and how the household reads numbers."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import cast

from book.models import Price, Stock
from book.own import retired_cuts
from django.http import HttpRequest
from ninja import Schema
from ravska_core.blend import Band, Line, flatten
from ravska_core.bowl import JARS_ML
from ravska_core.catalogue import ALLERGENS, FACES, SHAPES, TRIM_BECOMES, Starter, catalogue
from ravska_core.cautions import minimum_centre_c
from ravska_core.coat import (
    ADHESION_CEILING,
    AFTER_BATH,
    BATHS,
    COAT_WEIGHTS,
    EACH_TIME,
    LAYER_KINDS,
    LIQUID_FATES,
    SALT_ZONES,
    SIDE_BY_SIDE,
    VESSELS,
    WAYS,
)
from ravska_core.measure import SPOON_SETS, parse_parts, spoon_name
from ravska_core.meat import FACE_STATES, GRADES, PLACES, PORTION_G, usual_mass_g
from ravska_core.working import BadInput

from api.blends.documents import Basis, LineDocument
from api.plumbing.answers import Router
from api.plumbing.household import household
from api.plumbing.problems import Conflict
from api.plumbing.quantities import InTheHouse, Numeral
from api.plumbing.typed import Key, Typed

router = Router()


@dataclass(frozen=True, slots=True)
class SourceOut:
    """Where numbers are from; `mark` says how well that is known."""

    title: str
    mark: str


@dataclass(frozen=True, slots=True)
class GrindOut:
    key: str
    ingredient: str
    name: str
    grind: str
    family: str
    colour: str
    grain_mm: float
    density_g_ml: float
    price_100g: float
    allergens: list[str]
    source: str
    mark: str
    cure: bool


@dataclass(frozen=True, slots=True)
class StarterOut:
    """A ratio to begin a blend of a kind with, and the shares its strip is drawn from."""

    kind: str
    name: str
    says: str
    lines: list[LineDocument]
    bands: Sequence[Band]
    mark: str


def _starter_out(starter: Starter) -> StarterOut:
    lines = [Line(grind, parse_parts(parts), basis) for grind, parts, basis in starter.lines]
    return StarterOut(
        kind=starter.kind,
        name=starter.name,
        says=starter.says,
        lines=[
            LineDocument(grind=grind, parts=parts, basis=cast(Basis, basis)) for grind, parts, basis in starter.lines
        ],
        bands=[Band(grind, share) for grind, share in flatten(lines).items()],
        mark=catalogue().sources[starter.source].mark,
    )


@dataclass(frozen=True, slots=True)
class TrimOut:
    """What usually comes off, its share of what is bought [%], and what becomes of it."""

    what: str
    share: float
    becomes: str


@dataclass(frozen=True, slots=True)
class CutOut:
    """A cut: its faces each with its share [%], 0 for a large side of a rack; `retired` ones are offered no more."""

    key: str
    name: str
    other_names: list[str]
    animal: str
    shape: str
    faces: list[str]
    bone_share: float
    cook_yield: float
    usual_low_g: float
    usual_high_g: float
    usual_g: float
    minimum_centre_c: float
    face_shares: list[float]
    trims: list[TrimOut]
    retired: bool


@dataclass(frozen=True, slots=True)
class CoatWeightOut:
    name: str
    g_100cm2: float


@dataclass(frozen=True, slots=True)
class SurfaceOut:
    name: str
    holds_g_100cm2: float


@dataclass(frozen=True, slots=True)
class VesselOut:
    name: str
    ml_kg: float


@dataclass(frozen=True, slots=True)
class LayerKindOut:
    """A kind of layer: which blends it takes, its dial, and whether it is held before the next one."""

    key: str
    says: str
    blend_kind: str
    unit: str
    usual: float
    low: float
    high: float
    stays: float | None
    when: str
    held: bool
    each_time: bool
    bath: bool
    plain: list[str]


@dataclass(frozen=True, slots=True)
class ShippedWayOut:
    """A stack to start from: what its cooks hold, and the kinds of its layers in order."""

    key: str
    name: str
    says: str
    kinds: list[str]


@dataclass(frozen=True, slots=True)
class WordOut:
    key: str
    says: str


@dataclass(frozen=True, slots=True)
class ZoneOut:
    name: str
    below_percent: float | None


@dataclass(frozen=True, slots=True)
class SpoonSetOut:
    """A set of measures, by name, largest first."""

    key: str
    title: str
    spoons: list[str]


@dataclass(frozen=True, slots=True)
class PlaceOut:
    """Where meat is held: its usual temperature [C], and whether the temperature there is to be set."""

    key: str
    says: str
    usual_c: float
    set: bool


@dataclass(frozen=True, slots=True)
class CatalogueOut:
    """Everything a screen chooses from."""

    sources: dict[str, SourceOut]
    grinds: list[GrindOut]
    allergens: list[str]
    starters: list[StarterOut]
    cuts: list[CutOut]
    coat_weights: list[CoatWeightOut]
    surfaces: list[SurfaceOut]
    vessels: list[VesselOut]
    layer_kinds: list[LayerKindOut]
    ways: list[ShippedWayOut]
    side_by_side: list[str]
    grades: list[str]
    face_states: list[WordOut]
    faces: list[str]
    shapes: list[str]
    trim_becomes: list[WordOut]
    after_bath: list[WordOut]
    liquid_fates: dict[str, float]
    portions_g: dict[str, float]
    zones: list[ZoneOut]
    spoon_sets: list[SpoonSetOut]
    jars_ml: list[float]
    places: list[PlaceOut]


@router.reads("/catalogue")
def read_catalogue(request: HttpRequest) -> CatalogueOut:
    """Return the catalogue: grinds with density and source, cuts, coat weights, vessels."""
    tables = catalogue()
    retired = retired_cuts()
    return CatalogueOut(
        sources={key: SourceOut(source.title, source.mark) for key, source in tables.sources.items()},
        allergens=list(ALLERGENS),
        starters=[_starter_out(starter) for starter in tables.starters.values()],
        grinds=[
            GrindOut(
                key=g.key,
                ingredient=g.ingredient.key,
                name=g.ingredient.name,
                grind=g.name,
                family=g.ingredient.family,
                colour=g.ingredient.colour,
                grain_mm=g.grain_mm,
                density_g_ml=g.density_g_ml,
                price_100g=g.ingredient.price_100g,
                allergens=list(g.ingredient.allergens),
                source=tables.sources[g.source].title,
                mark=tables.sources[g.source].mark,
                cure="cure" in g.ingredient.flags,
            )
            for g in tables.grinds.values()
        ],
        cuts=[
            CutOut(
                key=c.key,
                name=c.name,
                other_names=list(c.other_names),
                animal=c.animal,
                shape=c.shape,
                faces=[face for face, _ in c.faces],
                cook_yield=c.cook_yield,
                bone_share=c.bone_share,
                usual_low_g=c.usual_low_g,
                usual_high_g=c.usual_high_g,
                usual_g=usual_mass_g(c),
                minimum_centre_c=minimum_centre_c(c.animal, c.minced)[0],
                face_shares=[share * 100 for _, share in c.faces],
                trims=[TrimOut(trim.what, trim.share * 100, trim.becomes) for trim in c.trims],
                retired=c.key in retired,
            )
            for c in tables.cuts.values()
        ],
        coat_weights=[CoatWeightOut(name=name, g_100cm2=weight) for name, weight in COAT_WEIGHTS.items()],
        surfaces=[SurfaceOut(name=name, holds_g_100cm2=most) for name, most in ADHESION_CEILING.items()],
        vessels=[VesselOut(name, dose) for name, dose in VESSELS.items()],
        layer_kinds=[
            LayerKindOut(
                key=k.key,
                says=k.says,
                blend_kind=k.blend_kind,
                unit=k.unit,
                usual=k.usual,
                low=k.low,
                high=k.high,
                stays=k.stays,
                when=k.when,
                held=k.hold_s is not None,
                each_time=k.key in EACH_TIME,
                bath=k.key in BATHS,
                plain=list(k.plain),
            )
            for k in LAYER_KINDS.values()
        ],
        ways=[ShippedWayOut(x.key, x.name, x.says, [slot.kind for slot in x.slots]) for x in WAYS.values()],
        side_by_side=list(SIDE_BY_SIDE),
        grades=list(GRADES),
        faces=list(FACES),
        shapes=list(SHAPES),
        trim_becomes=[WordOut(key, says) for key, says in TRIM_BECOMES.items()],
        face_states=[WordOut(key, says) for key, says in FACE_STATES.items()],
        after_bath=[WordOut(key, says) for key, says in AFTER_BATH.items()],
        liquid_fates=dict(LIQUID_FATES),
        portions_g=dict(PORTION_G),
        zones=[
            ZoneOut(name=name, below_percent=None if limit == float("inf") else limit) for limit, name in SALT_ZONES
        ],
        spoon_sets=[
            SpoonSetOut(key=s.key, title=s.title, spoons=[spoon_name(x) for x in s.spoons]) for s in SPOON_SETS.values()
        ],
        jars_ml=[float(size) for size in JARS_ML],
        places=[
            PlaceOut(key, place.says, place.usual_c, key not in ("fridge", "bench")) for key, place in PLACES.items()
        ],
    )


class PriceDocument(Schema):
    """What 100 g of an ingredient cost, as typed; empty goes back to the catalogue's estimate."""

    ingredient: Key
    per_100g: Numeral = Numeral("")


@router.reads("/prices")
def list_prices(request: HttpRequest) -> list[PriceDocument]:
    """Return the household's own prices."""
    rows = Price.objects.filter(household=household()).order_by("ingredient")
    return [PriceDocument(ingredient=row.ingredient, per_100g=Numeral(f"{row.per_100g:g}")) for row in rows]


@router.puts("/prices")
def save_price(request: HttpRequest, document: PriceDocument) -> PriceDocument:
    """Set what the household pays for an ingredient, or forget it."""
    if document.ingredient not in catalogue().ingredients:
        raise BadInput("ingredient", "This ingredient is not in the catalogue; choose another.")
    mine = Price.objects.filter(household=household(), ingredient=document.ingredient)
    if not document.per_100g:
        mine.delete()
        return document
    price = document.per_100g.between("per_100g", 0, 10_000, "a price of 100 g")
    Price.objects.update_or_create(household=household(), ingredient=document.ingredient, defaults={"per_100g": price})
    return document


class StockDocument(Schema):
    """What of a grind is in the house: a weight, ``plenty``, or empty for none; `was` is what was seen there before."""

    grind: Key
    have: InTheHouse
    was: Typed = ""


@router.puts("/stock")
def save_stock(request: HttpRequest, document: StockDocument) -> StockDocument:
    """Keep what of a grind is in the house; 409 with what it is now when it was changed meanwhile."""
    if document.grind not in catalogue().grinds:
        raise BadInput("grind", "No such ingredient is in the catalogue any more; look at the list again.")
    mine = Stock.objects.filter(household=household(), grind=document.grind)
    kept = next((row.typed for row in mine), "")
    if kept != document.was:
        raise Conflict(StockDocument(grind=document.grind, have=InTheHouse(kept), was=kept))
    typed = document.have.strip()
    if not typed:
        mine.delete()
    else:
        grams = document.have.read("have")
        Stock.objects.update_or_create(
            household=household(), grind=document.grind, defaults={"typed": typed, "grams": grams}
        )
    return StockDocument(grind=document.grind, have=InTheHouse(typed), was=typed)
