"""What an injection comes to: its pump, what stays, where it spreads and what stops the needle."""

import math
from dataclasses import dataclass, replace

from ravska_core.blend import CLOGS_AT, THICK_BRIX, BlendReading, clogging, sugar_of_water, syrup_viscosity
from ravska_core.coat.injection import PUSHED, Injection, all_sites, check_injection, good_sites, pump_percent
from ravska_core.coat.sites import Face, Gap, Site, widest_gap, wrong_with
from ravska_core.coat.spread import Spread, spread_of
from ravska_core.coat.strength import Strength, check_liquid, strength_of
from ravska_core.diffusion import lattice_evenness, reach_cm
from ravska_core.working import BadInput, Figure, Step, figure, say


@dataclass(frozen=True)
class Misplaced:
    """A site no needle can go in at: its place among the sites, and whether it is on bone or beyond the edge."""

    site: int
    why: str


@dataclass(frozen=True)
class Coarse:
    """A grind by key and name, and how coarse its grains are [mm]."""

    grind: str
    name: str
    grain_mm: float


@dataclass(frozen=True)
class Clog:
    """What stops a needle of this bore: the grinds that are too coarse, and a syrup too thick [times water]."""

    coarse: tuple[Coarse, ...]
    bore_mm: float
    most_mm: float
    times_water: float
    brix: float


@dataclass(frozen=True)
class InjectionReading:
    """What an injection comes to: pump, what stays, liquid, sites, strokes, fills, evenness and what would clog.

    `weighed` says that pump and what stays were weighed, not planned; `expected_g` is what the meat should weigh after
    it: the weight before and what stays; `asks` names sites that must be moved.
    """

    plan: Injection
    pump: Figure
    stays: Figure
    weighed: bool
    expected_g: float
    liquid_ml: float
    liquid_percent: float
    strength: Strength | None
    sites: tuple[Site, ...]
    own_sites: bool
    misplaced: tuple[Misplaced, ...]
    site_ml: Figure
    sites_in_all: int
    strokes: int
    stroke_ml: float
    strokes_in_all: int
    fills: int
    sites_a_fill: int
    evenness: Figure
    spread: Spread | None
    reach_mm: float
    gap: Gap | None
    clog: Clog
    asks: tuple[str, ...] = ()
    says: tuple[str, ...] = ()


def read_injection(
    plan: Injection, face: Face, pieces: int, blend: BlendReading, mass_g: float, edible_g: float, dose_g: float,
    stays: float, stays_own: bool, dt_cm2: float,
) -> InjectionReading:  # fmt: skip
    """Determine what an injection comes to.

    Parameters
    ----------
    face : Face
        The face entered, of one of `pieces` equal pieces.
    dose_g, stays : float
        Liquid for all pieces [g], and the share of it that stays [0 to 1].
    stays_own : bool
        Whether the cook said what stays.
    dt_cm2 : float
        Diffusivity times the holds until the fire [cm2].

    Raises
    ------
    BadInput
        At ``blend`` for a liquid above saturation, at ``injection.…`` for a plan that cannot be.
    """
    check_liquid(blend)
    check_injection(plan)
    try:
        laid = all_sites(plan, face)
    except BadInput as refusal:
        raise refusal.under("injection") from refusal
    misplaced = tuple(Misplaced(at, why) for at, why in enumerate(wrong_with(face, laid)) if why)
    good = good_sites(plan, face)
    weighed = plan.after_g is not None
    pump = dose_g * stays / mass_g * 100
    count = max(1, len(good)) * pieces
    ml = dose_g / blend.density_g_ml
    site_ml = ml / count
    strokes = max(1, math.ceil(site_ml / plan.stroke_ml - 1e-9))
    own = bool(plan.sites)
    even = lattice_evenness(plan.spacing_cm, dt_cm2, plan.grid) * 100
    reading = InjectionReading(
        plan=plan,
        pump=_pump(plan, mass_g, dose_g, stays, pump),
        stays=_stays(plan, mass_g, dose_g, stays, stays_own),
        weighed=weighed,
        expected_g=(mass_g if plan.before_g is None else plan.before_g) + dose_g * stays,
        liquid_ml=ml,
        liquid_percent=blend.salt.value,
        strength=None
        if plan.wants_percent is None or weighed
        else strength_of(plan.wants_percent, blend, edible_g, dose_g, stays, pump),
        sites=tuple(laid),
        own_sites=own,
        misplaced=misplaced,
        site_ml=figure(
            [
                Step("Liquid", f"{dose_g:.0f} g / {say(blend.density_g_ml, 3)} g/ml", ml, "ml"),
                Step("Sites", f"{len(good)} on each of {pieces}" if pieces > 1 else "on the face entered", count, ""),
                Step("A site", f"{ml:.0f} ml / {count}", site_ml, "ml"),
            ],
            "±20 %: no hand gives every site the same",
            spread=0.2,
        ),
        sites_in_all=count,
        strokes=strokes,
        stroke_ml=site_ml / strokes,
        strokes_in_all=strokes * count,
        fills=max(1, math.ceil(ml / plan.syringe_ml - 1e-9)),
        sites_a_fill=math.floor(plan.syringe_ml / site_ml + 1e-9),
        evenness=figure(
            [
                Step("D t until the fire", "this hold and those after it", dt_cm2 * 100, "mm²", "diffusivity"),
                Step("Least between sites, of the mean", f"{plan.grid} grid, {plan.spacing_cm * 10:.0f} mm apart", even,
                     "%", "lattice"),
            ],
            "full-depth lines on an endless grid; edges, and sites set by hand, are less even",
            low=lattice_evenness(plan.spacing_cm, dt_cm2 / 2, plan.grid) * 100,
            high=lattice_evenness(plan.spacing_cm, dt_cm2 * 2, plan.grid) * 100,
        ),
        spread=spread_of(face, good, dt_cm2),
        reach_mm=reach_cm(dt_cm2) * 10,
        gap=widest_gap(face, good),
        clog=_clog(blend, plan.bore_mm),
    )  # fmt: skip
    return replace(reading, asks=_asks(reading, len(good)), says=_says(reading, face))


def _pump(plan: Injection, mass_g: float, dose_g: float, stays: float, pump: float) -> Figure:
    if plan.after_g is None:
        step = Step("Pump", f"{dose_g:.0f} g × {say(stays, 3)} that stays / {mass_g:.0f} g", pump, "%", "pump")
        return figure([step], "±10 %, as what stays", spread=0.1)
    before = mass_g if plan.before_g is None else plan.before_g
    step = Step("Pump, weighed", f"({plan.after_g:.0f} − {before:.0f}) g / {before:.0f} g",
                pump_percent(before, plan.after_g), "%", "pump")  # fmt: skip
    return figure([step], "±1 g of a kitchen scale, each time")


def _stays(plan: Injection, mass_g: float, dose_g: float, stays: float, own: bool) -> Figure:
    if plan.after_g is None:
        step = Step("Stays", "as you said" if own else "usual, until it is weighed after", stays * 100, "%", "estimate")
        return figure(
            [step], "as you said" if own else "±10 %: cut, pressure and hold differ", spread=0 if own else 0.1
        )
    before = mass_g if plan.before_g is None else plan.before_g
    step = Step(
        "Stays, weighed", f"({plan.after_g:.0f} − {before:.0f}) g / {dose_g:.0f} g used", stays * 100, "%", "pump"
    )
    return figure([step], "as exact as the scale, and as what was used is known")


def _clog(blend: BlendReading, bore_mm: float) -> Clog:
    brix = sugar_of_water(blend)
    times = syrup_viscosity(brix) if brix >= THICK_BRIX else 1.0
    coarse = tuple(
        Coarse(grind.key, f"{grind.ingredient.name.lower()}, {grind.name}", grind.grain_mm)
        for grind in clogging(blend.leaves, bore_mm)
    )
    return Clog(coarse, bore_mm, bore_mm * CLOGS_AT, times, brix * 100)


def _asks(reading: InjectionReading, good: int) -> tuple[str, ...]:
    """Name the sites that no needle can go in at, and say what to do."""
    said = []
    for why, words in (("bone", "on bone"), ("edge", "beyond the edge")):
        numbers = [str(one.site + 1) for one in reading.misplaced if one.why == why]
        if len(numbers) == 1:
            said.append(f"Site {numbers[0]} lies {words}: drag it off, or let all be moved.")
        elif numbers:
            said.append(f"Sites {', '.join(numbers)} lie {words}: drag them off, or let all be moved.")
    if not good:
        said.append("No site is left that a needle can go in at; lay them out again.")
    return tuple(said)


def _says(reading: InjectionReading, face: Face) -> tuple[str, ...]:
    """Say how even the liquid is by the fire, and how the needle is drawn."""
    said = []
    if reading.spread is None:
        said.append("No hold follows it, so its salt stays in the lines the needle left.")
    else:
        said.append(f"By the fire its salt is {reading.reach_mm:.1f} mm from each site.")
    if reading.gap is not None and reading.gap.wide:
        said.append(f"The widest gap is {reading.gap.cm * 10:.0f} mm from any site, marked on the drawing.")
    often = f", {reading.strokes} times a site" if reading.strokes > 1 else ""
    said.append(f"Push the needle {face.depth_cm * PUSHED:.0f} cm deep and draw it back slowly{often}.")
    return tuple(said)
