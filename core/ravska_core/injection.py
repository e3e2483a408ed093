"""Injection: liquid and its salt from the pump and salt wanted, millilitres a site, strokes, fills, and what stays."""

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from ravska_core.catalogue import Grind
from ravska_core.composition import BlendReading
from ravska_core.depth import lattice_evenness, reach_cm
from ravska_core.needle import BORE_MM, CLOGS_AT, THICK_BRIX, clogging, sugar_of_water, syrup_viscosity
from ravska_core.quantities import Amount, parse_amount, parse_length_cm, parse_mass_g, parse_number
from ravska_core.sites import MOST_SITES, SPACING_CM, Face, Gap, Site, lay_sites, widest_gap, wrong_with
from ravska_core.spread import Spread, spread_of
from ravska_core.strength import Strength, check_liquid, strength_of
from ravska_core.working import BadInput, Figure, Step, figure, say

SYRINGE_ML = 60.0
"""Usual syringe [ml] (common practice, no source)."""

STROKE_ML = 5.0
"""Most that one stroke, drawing the needle back slowly, leaves in the meat [ml] (estimate)."""

PUSHED = 0.8
"""How far through the meat a needle is pushed, so that it does not come out below (estimate)."""


@dataclass(frozen=True)
class Injection:
    """How a piece is injected and what was weighed.

    `wants_percent` is the salt this injection is to bring [% of raw edible weight]; `sites` are places set by hand,
    as shares of length and width, none for the grid's own. `before_g`, `after_g` are the piece's weights around it,
    `used` the liquid that went through the needle; None where nobody weighed.
    """

    wants_percent: float | None = None
    grid: str = "hexagonal"
    spacing_cm: float = SPACING_CM
    sites: tuple[Site, ...] = ()
    bore_mm: float = BORE_MM
    syringe_ml: float = SYRINGE_ML
    stroke_ml: float = STROKE_ML
    before_g: float | None = None
    after_g: float | None = None
    used: Amount | None = None


def injection_of(typed: Mapping[str, Any]) -> Injection:
    """Read how a piece is injected, as it was typed; what is left empty is as usual.

    Raises
    ------
    BadInput
        At the key of what cannot be read.
    """

    def read(key: str, parse: Callable[[str], Any], otherwise: Any = None) -> Any:
        text = str(typed.get(key) or "").strip()
        return parse(text) if text else otherwise

    usual = Injection()
    return Injection(
        wants_percent=read("wants", lambda text: parse_number(text, "wants", 0.01, 5, "salt wanted from it, in %,")),
        grid=typed.get("grid") or usual.grid,
        spacing_cm=read("spacing", lambda text: parse_length_cm(text, "spacing", 0.8, 10, "mm"), usual.spacing_cm),
        sites=tuple((float(x), float(y)) for x, y in typed.get("sites") or ()),
        bore_mm=read("bore", lambda text: parse_length_cm(text, "bore", 0.05, 0.8, "mm") * 10, usual.bore_mm),
        syringe_ml=read("syringe", lambda text: parse_amount(text, "syringe", 1000).value, usual.syringe_ml),
        stroke_ml=read("stroke", lambda text: parse_amount(text, "stroke", 50).value, usual.stroke_ml),
        before_g=read("before", lambda text: parse_mass_g(text, "before")),
        after_g=read("after", lambda text: parse_mass_g(text, "after")),
        used=read("used", lambda text: parse_amount(text, "used")),
    )


@dataclass(frozen=True)
class Misplaced:
    """A site no needle can go in at: its place among the sites, and whether it is on bone or beyond the edge."""

    site: int
    why: str


@dataclass(frozen=True)
class Clog:
    """What stops a needle of this bore: the grinds that are too coarse, and a syrup too thick [times water]."""

    coarse: tuple[Grind, ...]
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


def pump_percent(before_g: float, after_g: float) -> float:
    """Determine the pump [% of the weight before]: (after - before) / before x 100.

    References
    ----------
    USDA FSIS, Processing Inspectors' Calculations Handbook (from memory).

    Raises
    ------
    BadInput
        At ``after`` when the piece weighs no more than before.
    """
    if after_g <= before_g:
        raise BadInput(
            "after",
            f"It weighs {after_g:.0f} g, no more than the {before_g:.0f} g before: weigh again, or clear this to go by "
            "what usually stays.",
        )
    return (after_g - before_g) / before_g * 100


def liquid_g(mass_g: float, pump: float, stays: float) -> float:
    """Determine the liquid for a pump [%] of a piece [g] of which `stays` stays [0 to 1]: W pump / 100 / stays."""
    return mass_g * pump / 100 / stays


def settle(
    plan: Injection, mass_g: float, planned_g: float, density_g_ml: float, least: float, most: float
) -> tuple[float, float] | None:
    """Return pump [% of the raw piece] and what stays [0 to 1] as they were weighed; None where nobody did.

    A pump outside `least` to `most` [%] is asked about.

    Raises
    ------
    BadInput
        At ``injection.after``, ``injection.before`` or ``injection.used`` when the weights cannot be.
    """
    if plan.after_g is None:
        return None
    before = mass_g if plan.before_g is None else plan.before_g
    try:
        pump = pump_percent(before, plan.after_g)
    except BadInput as refusal:
        raise refusal.under("injection") from refusal
    taken = plan.after_g - before
    used = planned_g if plan.used is None else plan.used.grams(density_g_ml)
    if not least <= taken / mass_g * 100 <= most:
        much = "more than meat takes" if pump > least else "hardly anything"
        sentence = f"That would be a pump of {say(pump, 3)} %, {much}; check the weights before and after."
        raise BadInput("injection.after", sentence)
    if taken > used * 1.02:
        sentence = (
            f"{taken:.0f} g more are in the meat than the {used:.0f} g of liquid; weigh again, or write what was used."
        )
        raise BadInput("injection.used", sentence)
    return taken / mass_g * 100, min(1.0, taken / used)


WEIGHT_OF_USUAL = 2
"""How many weighings the usual share that stays counts as (estimate)."""


def learned_stays(usual: float, own: Sequence[float]) -> float:
    """Determine what usually stays for this cook [0 to 1]: the mean of what was weighed, shrunk towards the usual."""
    return (WEIGHT_OF_USUAL * usual + sum(own)) / (WEIGHT_OF_USUAL + len(own))


def all_sites(plan: Injection, face: Face) -> tuple[Site, ...]:
    """Return the sites of a plan on a face: those set by hand, else those of its grid; `BadInput` as `lay_sites`."""
    return plan.sites or lay_sites(face, plan.spacing_cm, plan.grid)


def good_sites(plan: Injection, face: Face) -> tuple[Site, ...]:
    """Return the sites that a needle can go in at."""
    return tuple(
        (x, y) for x, y in all_sites(plan, face) if not wrong_with(face, x * face.length_cm, y * face.width_cm)
    )


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
    _check(plan)
    try:
        laid = all_sites(plan, face)
    except BadInput as refusal:
        raise refusal.under("injection") from refusal
    misplaced = tuple(
        Misplaced(at, why)
        for at, (x, y) in enumerate(laid)
        if (why := wrong_with(face, x * face.length_cm, y * face.width_cm))
    )
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


def _check(plan: Injection) -> None:
    far = next((at for at, site in enumerate(plan.sites) if not all(-0.5 <= end <= 1.5 for end in site)), None)
    if far is not None or len(plan.sites) > MOST_SITES:
        raise BadInput(
            "injection.sites",
            f"A piece takes at most {MOST_SITES} sites; take some out, or lay them out again."
            if far is None
            else f"Site {far + 1} lies far beyond the piece; drag it back onto the meat, or lay them out again.",
        )
    if not 0.5 <= plan.bore_mm <= 8:
        raise BadInput("injection.bore", "A needle's bore lies between 0.5 and 8 mm; 2 mm is usual.")
    if not 5 <= plan.syringe_ml <= 1000:
        raise BadInput("injection.syringe", "A syringe holds between 5 and 1,000 ml; 60 ml is usual.")
    if not 0.5 <= plan.stroke_ml <= 50:
        raise BadInput("injection.stroke", "A stroke leaves between 0.5 and 50 ml; 5 ml is usual.")
    if plan.wants_percent is not None and not 0.01 <= plan.wants_percent <= 5:
        raise BadInput("injection.wants", "Salt wanted from it lies between 0.01 and 5 % of the meat; 1 is usual.")


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
    return Clog(tuple(clogging(blend.leaves, bore_mm)), bore_mm, bore_mm * CLOGS_AT, times, brix * 100)


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
