"""An injection as it is planned: pump, needle, sites, and what was weighed of it."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ravska_core.blend import BORE_MM
from ravska_core.coat.sites import MOST_SITES, SPACING_CM, Face, Site, lay_sites, wrong_with
from ravska_core.measure import Amount, parse_amount, parse_length_cm, parse_mass_g, parse_number
from ravska_core.working import BadInput, say

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
    laid = all_sites(plan, face)
    return tuple(site for site, why in zip(laid, wrong_with(face, laid), strict=True) if not why)


def check_injection(plan: Injection) -> None:
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
