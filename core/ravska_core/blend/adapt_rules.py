"""Rules of adapting a blend to a meat and a fire."""

from collections.abc import Callable, Sequence
from collections.abc import Set as AbstractSet
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import partial

from ravska_core.blend.findings import FIRE_SURFACE_C, SAID_FIRE
from ravska_core.blend.lines import DRY_KINDS, Blend, Line
from ravska_core.blend.parts import masses, parts_of
from ravska_core.blend.qualities import QUALITIES, part_qualities
from ravska_core.blend.swap import swapped_line, tidy
from ravska_core.catalogue import Grind, catalogue

SUGAR_CAP = {"direct flame": 0.04, "hot iron": 0.04, "broiler": 0.05, "oven": 0.20}
"""Most sugar a coat takes on a fire before it burns bitter [mass fraction] (common practice, estimates)."""

SUGAR_FOR_MEAT = {"beef": 0.08, "fish": 0.10, "game": 0.10}
"""Most sugar that is usual on a meat [mass fraction] (common practice, estimates)."""

NO_SMOKE = ("hot iron", "oven", "broiler")

HIGH_HEAT = ("direct flame", "hot iron", "broiler")

_FISH_SALT = 0.30

_STRONG_ON_FISH = ("cumin", "cloves", "juniper", "allspice", "star-anise", "coffee-ground", "cocoa")


@dataclass(frozen=True)
class Change:
    """One change of an adaptation: what is done, why, and where the rule is from."""

    id: str
    text: str
    reason: str
    source: str = "trade"


class Bench:
    """A blend being adapted: its lines, what the changes so far were, and which changes are not wanted."""

    def __init__(self, blend: Blend, skip: AbstractSet[str], meat: str, fire: str) -> None:
        self.kind, self.lines = blend.kind, list(blend.lines)
        self.skip, self.meat, self.fire = skip, meat, fire
        self.changes: list[Change] = []

    @property
    def dry(self) -> bool:
        return self.kind in DRY_KINDS

    def grind(self, line: Line) -> Grind | None:
        return catalogue().grinds.get(line.grind)

    def find(self, wanted: Callable[[Grind], bool]) -> list[int]:
        """Return the free lines whose grind is wanted; blends inside are left as they are."""
        found = []
        for at, line in enumerate(self.lines):
            grind = self.grind(line)
            if grind is not None and not line.lock and wanted(grind):
                found.append(at)
        return found

    def share(self, wanted: Callable[[Grind], bool]) -> float:
        parts = parts_of(self.lines)
        relative = masses(self.lines, parts)
        inside = sum(
            mass * of for part, mass in zip(parts, relative, strict=True) for grind, of in part.leaves if wanted(grind)
        )
        return inside / sum(relative)

    def quality(self, key: str) -> float:
        parts = parts_of(self.lines)
        relative = masses(self.lines, parts)
        at = list(QUALITIES).index(key)
        return sum(m * part_qualities(p)[at] for p, m in zip(parts, relative, strict=True)) / sum(relative)

    def name(self, at: int) -> str:
        grind = self.grind(self.lines[at])
        return grind.ingredient.name.lower() if grind else "this line"

    def do(self, change: Change, act: Callable[[], None]) -> None:
        """Note a change and carry it out, unless it is not wanted; then it is noted only."""
        self.changes.append(change)
        if change.id not in self.skip:
            act()

    def scale(self, at: int, factor: float) -> None:
        line = self.lines[at]
        self.lines[at] = replace(line, parts=tidy(line.parts * Fraction(factor), line.basis))

    def put(self, at: int, grind: Grind, ratio: float) -> None:
        """Put `ratio` masses of a grind where one mass of the line stood."""
        self.lines[at] = swapped_line(self.lines[at], grind, ratio, tidied=True)

    def take(self, at: int, line: Line) -> None:
        self.lines[at] = replace(line, parts=tidy(line.parts, line.basis))

    def put_all(self, places: Sequence[int], grind: Grind, ratio: float) -> None:
        for at in places:
            self.put(at, grind, ratio)

    def add(self, key: str, share: float) -> None:
        """Add a grind at a share of what is there now."""
        grind = catalogue().grinds[key]
        parts = parts_of(self.lines)
        mass = sum(masses(self.lines, parts)) * share / (1 - share)
        basis = "scale" if all(line.basis == "scale" for line in self.lines) else "spoon"
        found = Fraction(mass / (grind.density_g_ml if basis == "spoon" else 1.0))
        self.lines.append(Line(key, tidy(found, basis), basis))


def _less_sugar(bench: Bench) -> None:
    if bench.kind in ("glaze", "spritz", "cooking liquid", "injection"):
        return  # it is not on the crust while the fire is at its hottest, or sugar is what it is made of
    sweet = bench.find(lambda g: g.ingredient.family == "sugar")
    share = bench.share(lambda g: g.ingredient.family == "sugar")
    for_fire, for_meat = SUGAR_CAP.get(bench.fire, 1.0), SUGAR_FOR_MEAT.get(bench.meat, 1.0)
    cap = min(for_fire, for_meat)
    if not sweet or share <= cap * 1.05:
        return
    factor = cap * (1 - share) / (share * (1 - cap))
    names = " and ".join(dict.fromkeys(bench.name(at) for at in sweet))
    if for_fire <= for_meat:
        crust = f"{SAID_FIRE[bench.fire]} brings the crust to {FIRE_SURFACE_C[bench.fire]:.0f} °C"
        reason = f"sugar burns bitter past about 165 °C, and {crust}"
    else:
        reason = f"{bench.meat} is usually coated with little sugar"
    text = f"{names}: from {share * 100:.0f} to about {cap * 100:.0f} % of the blend"

    def act() -> None:
        for at in sweet:
            bench.scale(at, factor)

    bench.do(Change("less-sugar", text, reason), act)


def _herb_for_cumin(bench: Bench) -> None:
    cumin = bench.find(lambda g: g.ingredient.key == "cumin")
    if bench.meat != "pork" or not cumin:
        return
    sage = catalogue().grinds["sage/ground"]
    change = Change("herb-for-cumin", "sage in cumin’s place", "an herb goes better with pork than cumin does")
    bench.do(change, lambda: bench.put_all(cumin, sage, 0.5))


def _mild_for_fish(bench: Bench) -> None:
    if bench.meat != "fish":
        return
    strong = bench.find(lambda g: g.ingredient.key in _STRONG_ON_FISH)
    if strong:
        names = " and ".join(dict.fromkeys(bench.name(at) for at in strong))

        def milder() -> None:
            for at in strong:
                bench.scale(at, 0.5)

        bench.do(Change("mild-for-fish", f"{names}: half as much", "strong spices bury the taste of fish"), milder)
    if bench.quality("herb") < 0.5:
        change = Change("dill-for-fish", "dill in, 4 %", "fish takes an herb well")
        bench.do(change, lambda: bench.add("dill-dried/leaf", 0.04))
    salts = bench.find(lambda g: g.ingredient.nacl > 0.9)
    share = bench.share(lambda g: g.ingredient.nacl > 0.9)
    if bench.dry and salts and share > _FISH_SALT * 1.05:
        factor = _FISH_SALT * (1 - share) / (share * (1 - _FISH_SALT))

        def less() -> None:
            for at in salts:
                bench.scale(at, factor)

        text = f"salt: from {share * 100:.0f} to about {_FISH_SALT * 100:.0f} % of the blend"
        bench.do(Change("salt-for-fish", text, "a thin fillet has much surface for its weight"), less)


def _pepper_for_beef(bench: Bench) -> None:
    if bench.meat != "beef" or not bench.dry:
        return
    peppers = bench.find(lambda g: g.ingredient.key == "black-pepper")
    if peppers and bench.fire in ("indirect", "oven"):
        fine = [at for at in peppers if (g := bench.grind(bench.lines[at])) is not None and g.name == "ground"]
        cracked = catalogue().grinds["black-pepper/cracked"]
        if fine:
            change = Change(
                "coarse-for-beef", "black pepper: ground → cracked", "coarse pepper makes the crust of beef"
            )
            bench.do(change, lambda: bench.put_all(fine, cracked, 1.0))
    salts = [at for at, line in enumerate(bench.lines) if (g := bench.grind(line)) and g.ingredient.nacl > 0.9]
    if not salts:
        return

    def volume(places: Sequence[int]) -> float:
        found = 0.0
        for at in places:
            line = bench.lines[at]
            (part,) = parts_of([line])
            found += float(line.parts) / (1.0 if line.basis == "spoon" else part.density_g_ml)
        return found

    salt, pepper = volume(salts), volume(peppers)
    if pepper < salt * 0.75:
        reason = "thick beef carries pepper one to one with salt by volume"
        if peppers:

            def more() -> None:
                for at in peppers:
                    bench.scale(at, salt / pepper)

            change = Change("pepper-for-beef", "black pepper: as many spoons as salt", reason)
            bench.do(change, more)
        else:
            bench.do(
                Change("pepper-for-beef", "black pepper in, 20 %", reason),
                lambda: bench.add("black-pepper/cracked", 0.2),
            )


def _herb_for_meat(bench: Bench) -> None:
    wanted = {
        "poultry": ("thyme/leaf", "thyme", "poultry takes an herb well"),
        "lamb": ("rosemary/leaf", "rosemary", "rosemary stands up to the fat of lamb"),
    }
    if bench.meat in wanted and bench.quality("herb") < 0.4:
        key, name, reason = wanted[bench.meat]
        bench.do(Change(f"herb-for-{bench.meat}", f"{name} in, 3 %", reason), lambda: bench.add(key, 0.03))
    if bench.meat == "game" and not any(line.grind.startswith("juniper/") for line in bench.lines):
        change = Change("juniper-for-game", "juniper in, 4 %", "resin and a little bitterness suit lean game")
        bench.do(change, lambda: bench.add("juniper/cracked", 0.04))


def _smoke_without_fire(bench: Bench) -> None:
    if bench.fire not in NO_SMOKE or bench.quality("smoke") >= 0.4 or not (bench.dry or bench.kind == "paste"):
        return
    reason = f"there is no wood smoke with {SAID_FIRE[bench.fire]}"
    paprika = bench.find(lambda g: g.ingredient.key == "paprika")
    if paprika:
        smoked = catalogue().grinds["paprika-smoked/powder"]
        change = Change("smoked-spice", "smoked paprika in sweet paprika’s place", reason)
        bench.do(change, lambda: bench.put(paprika[0], smoked, 1.0))
    else:
        change = Change("smoked-spice", "smoked paprika in, 8 %", reason)
        bench.do(change, lambda: bench.add("paprika-smoked/powder", 0.08))


def _dried_for_fresh(bench: Bench) -> None:
    if bench.fire not in HIGH_HEAT:
        return
    for key, to, ratio, name in (
        ("garlic-fresh", "garlic-granulated/powder", 0.25, "garlic"),
        ("onion-fresh", "onion-granulated/granulated", 0.12, "onion"),
        ("shallot", "onion-granulated/granulated", 0.12, "shallot"),
    ):
        for at in [at for at in bench.find(lambda g: True) if bench.lines[at].grind.startswith(f"{key}/")]:
            grind = catalogue().grinds[to]
            change = Change(
                f"dried-{name}",
                f"dried for fresh {name}",
                f"fresh {name} burns bitter at the heat of {SAID_FIRE[bench.fire]}",
            )
            bench.do(change, partial(bench.put, at, grind, ratio))


def _finer_on_iron(bench: Bench) -> None:
    if bench.fire not in ("hot iron", "direct flame"):
        return
    reason = (
        "coarse grains fall off hot iron and hold the meat off it"
        if bench.fire == "hot iron"
        else "leaves catch fire before the meat browns"
    )
    for at in bench.find(
        lambda g: (
            g.ingredient.family in (("spice", "herb") if bench.fire == "hot iron" else ("herb",)) and g.grain_mm >= 1.5
        )
    ):
        here = bench.grind(bench.lines[at])
        finer = [
            g for g in catalogue().grinds.values()
            if here is not None and g.ingredient.key == here.ingredient.key and g.grain_mm < 1
        ]  # fmt: skip
        if here is not None and finer:
            text = f"{bench.name(at)}: {here.name} → {finer[0].name}"
            change = Change(f"finer-{here.ingredient.key}", text, reason)
            bench.do(change, partial(bench.put, at, finer[0], 1.0))


RULES = (
    _dried_for_fresh, _herb_for_cumin, _pepper_for_beef, _herb_for_meat, _smoke_without_fire, _finer_on_iron,
    _less_sugar, _mild_for_fish,
)  # fmt: skip
