"""A blend's method: the order things go in, what is ground, strained off or simmered down, and what that leaves.

A liquid that is reduced loses water only. What is strained off leaves its juice, with what has dissolved, and half of
its aroma and heat; the sieve holds back the rest, and of the liquid what clings to it, as a thing of its own.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from types import MappingProxyType

from ravska_core.blend.volume import solid_share, soluble_share, volume_ml
from ravska_core.catalogue import Grind, Ingredient, while_it_stands
from ravska_core.working import BadInput, Step, say

DOES = ("mix", "grind", "strain", "simmer", "rest", "note")
"""What a step does: put lines in, grind them finer, take them out again, drive water off, wait, or only say so."""

MOST_STEPS = 30

SOLUBLE = ("salt", "sugar")
"""Families of ingredients that dissolve, so that no sieve holds them back."""

SIEVE_MM = 0.5
"""What a kitchen sieve holds back where no lines are named [mm] (common practice)."""

STEEPED: Mapping[str, float] = MappingProxyType(
    {"nacl": 1.0, "sugars": 1.0, "acid": 1.0, "water": 1.0, "scoville": 0.5, "glutamate": 0.5, "smoke": 0.5,
     "herb": 0.5, "price_100g": 1.0}
)  # fmt: skip
"""Share of an ingredient's values that goes into the liquid when it is strained off (halves: estimates)."""

JUICE: Mapping[str, float] = MappingProxyType(
    {"onion-fresh": 0.6, "shallot": 0.55, "spring-onion": 0.5, "garlic-fresh": 0.35, "ginger-fresh": 0.5,
     "papaya-fresh": 0.7, "kiwi": 0.75, "fig": 0.5, "chilli-green": 0.6, "chilli-red": 0.6, "jalapeno": 0.6}
)  # fmt: skip
"""Juice that the pulp of something fresh gives in a sieve, by mass (common practice, no source)."""

_OTHER_JUICE, _HERB_JUICE, _CHOPPED = 0.5, 0.3, 1 / 3
"""The same for what is not named, and for fresh herbs; and what chopped pieces give of it (estimates)."""

_PULPED = ("blended", "mashed", "crushed", "grated", "paste")

ABSORBS = 1.0
"""Liquid that dry spices still hold when they are strained off [g/g] (estimate)."""

_FRESH_WATER = 0.5
"""What holds more water than this is fresh, and gives juice instead of taking liquid up."""

_LEAST_LEFT = 0.02
"""Least of a blend that must stay in the bowl when it is strained [g/g]."""

_DRIEST = 0.98
"""Most of its water that a pot can lose before it burns."""

LeafMass = tuple[Grind, float]


@dataclass(frozen=True)
class Stuff:
    """What something holds: whole grinds with their masses, and what a method made of others.

    Of what was `steeped` and strained off only what dissolves and half of the aroma is in it; of what is `spent`, only
    what is left of it in a sieve. `gone` is water that was driven off.
    """

    leaves: tuple[LeafMass, ...] = ()
    steeped: tuple[LeafMass, ...] = ()
    spent: tuple[LeafMass, ...] = ()
    gone: float = 0.0

    @property
    def mass(self) -> float:
        """What all of it weighs."""
        return (
            sum(mass for _, mass in self.leaves)
            + sum(mass * soluble_share(grind) for grind, mass in self.steeped)
            + sum(mass * solid_share(grind) for grind, mass in self.spent)
            - self.gone
        )

    @property
    def volume_ml(self) -> float:
        """What all of it fills [ml] when its masses are in g."""
        return max(volume_ml(self.leaves, self.steeped, self.spent, self.gone), self.mass / 2.2)

    @property
    def water(self) -> float:
        """The water in it."""
        whole = sum(mass * grind.ingredient.water for grind, mass in (*self.leaves, *self.steeped))
        return whole - self.gone

    def times(self, factor: float) -> "Stuff":
        """Return so many times as much of it."""

        def scaled(leaves: tuple[LeafMass, ...]) -> tuple[LeafMass, ...]:
            return tuple([(grind, mass * factor) for grind, mass in leaves]) if leaves else leaves

        return Stuff(scaled(self.leaves), scaled(self.steeped), scaled(self.spent), self.gone * factor)


def gathered(stuffs: Sequence[Stuff]) -> Stuff:
    """Return several things as one, each grind once."""

    def merged(lists: Sequence[tuple[LeafMass, ...]]) -> tuple[LeafMass, ...]:
        found: dict[str, LeafMass] = {}
        for leaves in lists:
            for grind, mass in leaves:
                found[grind.key] = (grind, mass + (found[grind.key][1] if grind.key in found else 0.0))
        return tuple(found.values())

    return Stuff(
        merged([of.leaves for of in stuffs]), merged([of.steeped for of in stuffs]),
        merged([of.spent for of in stuffs]), sum(of.gone for of in stuffs),
    )  # fmt: skip


@dataclass(frozen=True)
class MethodStep:
    """One step: what it does, to which lines (by place; none: all), and how much.

    `to` names the grind for "grind", `by` the share of the volume driven off for "simmer", `lasts_s` the time of
    "simmer" and "rest" [s]; `note` is what the cook wrote.
    """

    do: str
    of: tuple[int, ...] = ()
    to: str = ""
    by: float = 0.0
    lasts_s: float = 0.0
    note: str = ""


@dataclass(frozen=True)
class Finished:
    """What a method leaves of all that went in: what is in the bowl, what the sieve held back, the mass after steps."""

    stuff: Stuff
    held: Stuff
    after: tuple[float, ...]


def _clings(grind: Grind, mass: float) -> float:
    """Return what a sieve holds back besides the solids of something strained off: juice, or liquid taken up."""
    i = grind.ingredient
    if i.water < _FRESH_WATER:
        return ABSORBS * mass
    other = _HERB_JUICE if "fresh_herb" in i.flags else _OTHER_JUICE
    gives = JUICE.get(i.key, other) * (1.0 if grind.name in _PULPED else _CHOPPED)
    return max(0.0, (1 - gives) * mass - solid_share(grind) * mass)


def _sieved(grind: Grind, named: bool) -> bool:
    return grind.ingredient.family not in SOLUBLE and (grind.grain_mm > SIEVE_MM or (named and grind.grain_mm > 0))


def enters_at(steps: Sequence[MethodStep], lines: int) -> list[int]:
    """Determine at which step every line goes in: the first "mix" that names it, or 0 (from the start)."""
    found = [0] * lines
    named: set[int] = set()
    for at, step in enumerate(steps):
        if step.do == "mix":
            for line in step.of:
                if line < lines and line not in named:
                    named.add(line)
                    found[line] = at
    return found


def order_of(steps: Sequence[MethodStep], lines: int) -> list[int]:
    """Determine the order lines are weighed in: as the method puts them in, the others first and as they stand."""
    enters = enters_at(steps, lines)
    within = {line: (at, place) for at, step in enumerate(steps) for place, line in enumerate(step.of)}
    return sorted(range(lines), key=lambda line: (enters[line], within.get(line, (0, line))[1], line))


def finish(lines: Sequence[Stuff], steps: Sequence[MethodStep], grinds: Mapping[str, Grind]) -> Finished:
    """Determine what a method leaves of what went in.

    Parameters
    ----------
    lines : sequence
        For every line what it holds; all of them together weigh 1.
    steps : sequence
        The method, in order. A line that no "mix" names is in from the start.
    grinds : mapping
        The catalogue's grinds, for what is ground finer.

    Raises
    ------
    BadInput
        At ``method.N.by`` when more water would be driven off than there is, at ``method.N.do`` when nothing is left
        of what is strained, at ``method.N.to`` for a grind that an ingredient does not come in.
    """
    enters = enters_at(steps, len(lines))
    pot: dict[int, Stuff] = {}
    held: list[Stuff] = []
    after: list[float] = []
    # what a step takes off the whole pot is counted here
    gone = 0.0

    def fill(at: int) -> None:
        for line, stuff in enumerate(lines):
            if enters[line] <= at and line not in filled:
                filled.add(line)
                pot[line] = stuff

    filled: set[int] = set()
    fill(0)
    for at, step in enumerate(steps):
        fill(at)
        named = [line for line in step.of if line in pot] if step.of else list(pot)
        if step.do == "grind":
            for line in named:
                leaves = tuple(_ground(leaf, step.to, at, grinds, bool(step.of)) for leaf in pot[line].leaves)
                pot[line] = replace(pot[line], leaves=leaves)
        elif step.do == "strain":
            gone, kept = _strained(pot, named, bool(step.of), gone, at)
            held.append(kept)
        elif step.do == "simmer" and step.by:
            whole = replace(gathered(list(pot.values())), gone=gone + sum(stuff.gone for stuff in pot.values()))
            lost = step.by * whole.volume_ml
            if lost > whole.water * _DRIEST:
                most = whole.water * _DRIEST / whole.volume_ml * 100 if whole.volume_ml > 0 else 0.0
                raise BadInput(
                    f"method.{at}.by",
                    f"There is not that much water in it by then; simmer it down by at most {say(most, 3)} %."
                    if most >= 1
                    else "There is hardly any water in it by then, so it cannot be simmered down; take this step out.",
                )
            gone += lost
        after.append(sum(stuff.mass for stuff in pot.values()) - gone)
    fill(len(steps))
    whole = gathered(list(pot.values()))
    return Finished(replace(whole, gone=whole.gone + gone), gathered(held), tuple(after))


def _strained(pot: dict[int, Stuff], named: Sequence[int], by_name: bool, gone: float, at: int) -> tuple[float, Stuff]:
    """Strain what is in the pot, in place; return the water driven off that is left to count, and what is held back.

    The sieve keeps solids and, clinging to them, an even share of all that is liquid.
    """
    out: list[LeafMass] = []
    spent: list[LeafMass] = []
    for line in named:
        sieved = tuple(leaf for leaf in pot[line].leaves if _sieved(leaf[0], by_name))
        rest = tuple(leaf for leaf in pot[line].leaves if leaf not in sieved)
        out += sieved
        spent += pot[line].spent
        pot[line] = replace(pot[line], leaves=rest, steeped=(*pot[line].steeped, *sieved), spent=())
    clings = sum(_clings(grind, mass) for grind, mass in out) + ABSORBS * sum(m * solid_share(g) for g, m in spent)
    liquid = sum(stuff.mass for stuff in pot.values()) - gone
    wet = sum(m for stuff in pot.values() for g, m in stuff.leaves if g.ingredient.family in SOLUBLE or not g.grain_mm)
    wet += sum(m * soluble_share(g) for stuff in pot.values() for g, m in stuff.steeped)
    if min(liquid, wet - gone) - clings < _LEAST_LEFT:
        raise BadInput(
            f"method.{at}.do", "There is nothing liquid in it to strain; put that in first, or take this step out."
        )
    kept = clings / liquid
    before = gathered(list(pot.values()))
    back = before.times(kept)
    for line, stuff in pot.items():
        pot[line] = stuff.times(1 - kept)
    held = Stuff(back.leaves, back.steeped, (*out, *spent), back.gone + gone * kept)
    return gone * (1 - kept), held


def _ground(leaf: LeafMass, to: str, at: int, grinds: Mapping[str, Grind], named: bool) -> LeafMass:
    grind, mass = leaf
    finer = grinds.get(f"{grind.ingredient.key}/{to}")
    if finer is None:
        if not named:
            return leaf
        raise BadInput(f"method.{at}.to", f"{grind.ingredient.name} does not come as “{to}”; choose another grind.")
    return (_of_ingredient(finer, grind.ingredient), mass)


@while_it_stands(512)
def _of_ingredient(grind: Grind, ingredient: Ingredient) -> Grind:
    """Return a grind of what was known of its ingredient before it was ground."""
    return grind if grind.ingredient is ingredient else replace(grind, ingredient=ingredient)


def check_method(steps: Sequence[MethodStep], lines: int) -> None:
    """Refuse a method that cannot be followed, with a sentence at ``method.N.…``."""
    if len(steps) > MOST_STEPS:
        raise BadInput("method", f"A method holds at most {MOST_STEPS} steps; put some of them together.")
    for at, step in enumerate(steps):
        if step.do not in DOES:
            raise BadInput(f"method.{at}.do", f"A step is one of {', '.join(DOES)}; choose one.")
        if any(not 0 <= line < lines for line in step.of):
            raise BadInput(f"method.{at}.of", "This step names a line that is not there any more; choose again.")


def say_share(share: float) -> str:
    """Return a share as people say it: ``a third``, ``half``, ``30 %``."""
    said = {Fraction(1, 2): "half", Fraction(1, 3): "a third", Fraction(2, 3): "two thirds",
            Fraction(1, 4): "a quarter", Fraction(3, 4): "three quarters"}  # fmt: skip
    return said.get(Fraction(share).limit_denominator(100), f"{say(share * 100, 3)} %")


def method_working(steps: Sequence[MethodStep], after: Sequence[float], share: float, batch_g: float) -> list[Step]:
    """Return the working of a batch's mass through its method [g]; `after` and `share` are over what went in."""
    working = [Step("Goes in", "all lines", batch_g, "g")]
    for step, mass in zip(steps, after, strict=True):
        if step.do == "simmer" and step.by:
            rule = f"simmered down by {say_share(step.by)} of its volume, water only"
            working.append(Step("In the pot then", rule, mass * batch_g, "g"))
        elif step.do == "strain":
            rule = "strained; its juice and what had dissolved stay, less what clings in the sieve"
            working.append(Step("In the bowl then", rule, mass * batch_g, "g", "estimate"))
    working.append(Step("Finished", "what is left", share * batch_g, "g"))
    return working
