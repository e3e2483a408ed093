"""Is it a fair test? What two arms share, and what differs besides the seasoning."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from types import MappingProxyType

from ravska_core.fire import Happened
from ravska_core.trial.changes import Put, StackChange, changes, clean, looks_tell, two_by_two
from ravska_core.trial.explain import Guesses

SALT_POINTS = 0.2
"""Salt difference [points of % of raw edible weight] from which tasters may be voting for salt (estimate)."""

WEIGHT_SHARE = 0.1
"""Relative weight difference from which pieces no longer cook alike (estimate)."""

TIME_S = 10 * 60.0
"""Difference in times [s] from which it counts (estimate)."""


ON_S, PLATE_S, END_K, PIT_K, APART = 3 * 60.0, 5 * 60.0, 2.0, 5.0, 0.12
"""From how far apart two pieces went on, or came to the plates [s], were in their centres or in the pit [K], or lay on
the grate [share of its width] that counts (estimates)."""


@dataclass(frozen=True)
class PlatePortion:
    """How a sample is cut for its plates, in words, and how thick [mm]; empty or None where nobody said."""

    grain: str = ""
    thickness_mm: float | None = None
    crust: str = ""
    place: str = ""


@dataclass(frozen=True)
class ArmRecord:
    """What is recorded of one arm so far. Weight [g], salt [% of raw edible weight], times [s]; None when not known.

    `beside` is what is eaten with it, stirred in, at the board or at the table, with how much a serving gets [g].
    `phases` are those of its fire in words, None where nobody said, `wood` what smokes in them, `done` how the last
    that cooks ends. `log` is what happened to it on the fire, once it has been there. `name` is what it is called,
    `stack` its layers, `masses_g` what each of its pieces weighs, `portion` how it is cut for the plates and `plate_s`
    how long it took from the fire to them, where that was said at the table.
    """

    letter: str
    cut: str
    count: int
    mass_g: float
    salt_percent: float | None
    fire_s: float | None
    rest_s: float | None
    surface_coated: bool
    beside: tuple[tuple[str, float], ...] = ()
    phases: tuple[str, ...] | None = None
    wood: tuple[str, ...] = ()
    done: str = ""
    log: Happened | None = None
    name: str = ""
    stack: tuple[Put, ...] = ()
    masses_g: tuple[float, ...] = ()
    portion: PlatePortion = PlatePortion()
    plate_s: float | None = None


@dataclass(frozen=True)
class Served:
    """What is recorded of a tasting besides its samples: how many cards, how many of them by who knew, what boards,
    bags, pans or drip lines samples shared, whether a card was asked which plate is which, and what they guessed, once
    that is told."""

    cards: int = 0
    knew: int = 0
    shared: tuple[str, ...] = ()
    asked: bool = False
    guesses: Guesses | None = None


@dataclass(frozen=True)
class Difference:
    """One thing that differs, as a sentence with the arms' own values, and whether one tap can even it out.

    `size` is how far, in its usual size (`USUAL_SIZES`), above zero where the second has more of it; `about` tells
    apart what may differ under one name, such as which sauce.
    """

    what: str
    sentence: str
    can_even: bool
    size: float = 1.0
    about: str = ""


@dataclass(frozen=True)
class UsualSize:
    """How far apart two usually are in something that muddies a tasting, its unit, and why it does."""

    size: float
    unit: str
    why: str


USUAL_SIZES: Mapping[str, UsualSize] = MappingProxyType(
    {
        "salt": UsualSize(0.3, "% of the weight", "most notice that much more salt, and many vote for it"),
        "plate": UsualSize(10 * 60, "s", "what waits ten minutes longer is cooler and its crust softer"),
        "fire": UsualSize(20 * 60, "s", "twenty minutes more make it more tender, or drier"),
        "rest": UsualSize(15 * 60, "s", "a quarter of an hour evens out its juice"),
        "weight": UsualSize(0.25, "", "a quarter heavier takes longer and salts less deeply"),
        "order": UsualSize(10 * 60, "s", "the other had the fire to itself for ten minutes"),
        "pit": UsualSize(10, "K", "ten degrees show in crust and juice"),
        "end": UsualSize(3, "K", "three degrees show in juice and tenderness"),
        "wrap": UsualSize(20 * 60, "s", "twenty minutes in a wrap soften a crust"),
        "baste": UsualSize(2, "", "two bastes show on the crust"),
    }
)  # fmt: skip
"""Usual sizes (estimates). Whatever else differs counts once, as much as any of these at its usual size."""


def in_sizes(what: str, second_less_first: float) -> float:
    """Return how far two differ in something, in its usual size."""
    return second_less_first / USUAL_SIZES[what].size


@dataclass(frozen=True)
class FairTest:
    """What is the same, what differs, and what is not recorded yet.

    `changes` is what the seasoning changes, the thing that is asked about first; where there is more than one, `clean`
    says the smallest change that leaves one, `can_clean` whether one tap makes it, and `two_by_two` names four samples
    that answer both. `looks` says how the plates can be told apart by looks.
    """

    same: tuple[str, ...]
    differs: tuple[Difference, ...]
    unknown: tuple[str, ...]
    changes: tuple[StackChange, ...] = ()
    clean: str = ""
    two_by_two: tuple[str, ...] = ()
    can_clean: bool = False
    looks: str = ""


def compare_samples(records: Sequence[ArmRecord], pairs: Sequence[tuple[int, int]], served: Served) -> FairTest:
    """Compare everything recorded of the samples of a trial, pair by pair, as they are read against each other.

    What is the same is so in every pair; what differs in one is told once, salt and weight of the pair that is furthest
    apart.
    """
    found = [compare_arms(records[a], records[b], served.cards, served.knew) for a, b in pairs]
    widest = _widest(records, pairs)
    same = tuple(_most(word, found) for word in found[0].same if _most(word, found))
    differs = tuple(
        dict.fromkeys(
            one for pair, other in zip(pairs, found, strict=True) for one in other.differs
            if widest.get(one.what, pair) == pair
        )
    )  # fmt: skip
    unknown = tuple(dict.fromkeys(word for other in found for word in other.unknown))
    worst = max(found, key=lambda other: len(other.changes))
    looks = next((other.looks for other in found if other.looks), "")
    return replace(
        worst, same=same, differs=(*differs, *_served(served, looks)), unknown=unknown, looks=looks,
    )  # fmt: skip


def _most(word: str, found: Sequence[FairTest]) -> str:
    """Return what is the same in every pair, of what is so within some limit the widest; empty where one differs."""
    about = word.split(" within ")[0]
    said = [next((one for one in other.same if one.split(" within ")[0] == about), "") for other in found]
    return max(said, key=lambda one: (len(one), one)) if all(said) else ""


def _widest(records: Sequence[ArmRecord], pairs: Sequence[tuple[int, int]]) -> dict[str, tuple[int, int]]:
    """Return the pair that is furthest apart in salt and in weight, of those where it is known."""
    found = {"weight": max(pairs, key=lambda pair: abs(records[pair[0]].mass_g - records[pair[1]].mass_g))}
    salts = {
        pair: abs(a - b) for pair in pairs
        if (a := records[pair[0]].salt_percent) is not None and (b := records[pair[1]].salt_percent) is not None
    }  # fmt: skip
    if salts:
        found["salt"] = max(salts, key=salts.__getitem__)
    return found


def _served(served: Served, looks: str) -> tuple[Difference, ...]:
    """Return what of the serving muddies a trial."""
    found = served_differences(served.shared, served.guesses)
    half_blind = served.guesses is not None and served.guesses.half_blind
    if looks and served.cards and not served.asked and not half_blind:
        return (*found, Difference("looks", f"{looks} No card said what it took them for.", False))
    return found


def served_differences(shared: Sequence[str], guessed: Guesses | None) -> tuple[Difference, ...]:
    """Return what of the serving a whole table has in common: what samples shared, and that plates were told apart."""
    found = [
        Difference("shared", f"They share {one}: what drips or dusts off one may be on the other.", False, about=one)
        for one in shared
    ]
    if guessed is not None and guessed.half_blind:
        said = (
            f"{guessed.right} of {guessed.of} guessed which was which, more than chance would: these cards count as "
            "half blind."
        )
        found.append(Difference("guessed", said, False))
    return tuple(found)


def compare_arms(a: ArmRecord, b: ArmRecord, cards: int, cards_not_blind: int) -> FairTest:
    """Compare everything recorded of two arms besides the seasoning itself.

    Parameters
    ----------
    cards, cards_not_blind : int
        Cards in so far, and how many of them are from tasters who knew which was which.
    """
    same: list[str] = []
    differs: list[Difference] = []
    unknown: list[str] = []

    if a.cut == b.cut:
        same.append("cut")
    else:
        sentence = f"{a.letter} and {b.letter} are different cuts, so cut and seasoning cannot be told apart."
        differs.append(Difference("cut", sentence, False))
    if a.count == b.count:
        same.append("number of pieces")
    else:
        sentence = f"{a.letter} is {a.count} and {b.letter} {b.count} pieces: they cook at different speed."
        differs.append(Difference("count", sentence, False, _sign(b.count - a.count)))

    heavier = max(a, b, key=lambda arm: arm.mass_g)
    off = abs(a.mass_g - b.mass_g) / max(a.mass_g, b.mass_g)
    if off <= WEIGHT_SHARE:
        same.append("weight" if off < 0.005 else f"weight within {max(1, round(off * 100))} %")
    else:
        more = (heavier.mass_g / min(a.mass_g, b.mass_g) - 1) * 100
        sentence = f"{heavier.letter} weighs {more:.0f} % more: it takes longer and salts less deeply."
        dealt = len(a.masses_g) == len(b.masses_g) > 1 and a.cut == b.cut and not served_yet(a, b)
        size = in_sizes("weight", _sign(b.mass_g - a.mass_g) * (more / 100))
        differs.append(Difference("weight", sentence, dealt, size))

    if a.salt_percent is None or b.salt_percent is None:
        unknown.append("salt")
    else:
        points = abs(a.salt_percent - b.salt_percent)
        saltier = a if a.salt_percent > b.salt_percent else b
        other = b if saltier is a else a
        if points < SALT_POINTS:
            same.append(f"salt within {max(points, 0.01):.2f} points")
        else:
            sentence = (
                f"{saltier.letter} carries {points:.2f} points more salt than {other.letter}: "
                "tasters may be voting for salt."
            )
            size = in_sizes("salt", b.salt_percent - a.salt_percent)
            differs.append(Difference("salt", sentence, True, size))

    for what, name, first, second in (
        ("fire", "time on the fire", a.fire_s, b.fire_s),
        ("rest", "rest", a.rest_s, b.rest_s),
    ):
        if first is None or second is None:
            unknown.append(name)
        elif abs(first - second) < TIME_S:
            same.append(name)
        else:
            longer = a if first > second else b
            minutes = abs(first - second) / 60
            been = a.log is not None and b.log is not None
            had = "had" if been else "has"
            sentence = f"{longer.letter} {had} {minutes:.0f} min more {'on the fire' if what == 'fire' else 'rest'}."
            differs.append(Difference(what, sentence, not been, in_sizes(what, second - first)))

    if a.surface_coated == b.surface_coated:
        same.append("faces left bare")
    else:
        coated = a if a.surface_coated else b
        sentence = f"Only {coated.letter} has its skin or fat cap seasoned."
        differs.append(Difference("bare face", sentence, True, 1.0 if coated is b else -1.0))

    _beside(a, b, same, differs)
    same.append("order shuffled")
    if cards_not_blind:
        sentence = f"{cards_not_blind} of {cards} cards are from tasters who knew: after the reveal, or from plating."
        differs.append(Difference("blind", sentence, False))
    elif cards:
        same.append("all cards blind")
    _fires(a, b, same, differs, unknown)
    _logs(a.log, b.log, same, differs, unknown)
    _plated(a, b, same, differs, unknown)
    _portions(a, b, same, differs)
    found = changes(a.letter, a.stack, b.letter, b.stack)
    more = len(found) > 1
    names = (a.name or a.letter, b.name or b.letter)
    return FairTest(
        tuple(same), tuple(differs), tuple(unknown), found, clean(a.letter, b.letter, found),
        two_by_two(names, found) if more else (), more and all(change.tappable for change in found[1:]),
        looks_tell(a.letter, a.stack, b.letter, b.stack),
    )  # fmt: skip


def _sign(difference: float) -> float:
    return 1.0 if difference > 0 else -1.0


def _unlike(first: str, second: str) -> tuple[float, str]:
    """Return how far two words differ and what about: the same two differ about the same, whichever has which."""
    low, high = sorted((first, second))
    return (1.0 if (first, second) == (low, high) else -1.0), f"{low} | {high}"


def served_yet(a: ArmRecord, b: ArmRecord) -> bool:
    """Tell whether one of two arms has been on the fire, so that nothing of its meat can be dealt out anew."""
    return a.log is not None or b.log is not None


def _plated(
    a: ArmRecord, b: ArmRecord, same: list[str], differs: list[Difference], unknown: list[str]
) -> None:  # fmt: skip
    """Compare how long two arms took from the fire to the plates: as it was said at the table, else by the log."""
    first, second = (arm.plate_s if arm.plate_s is not None or arm.log is None else arm.log.plate_s for arm in (a, b))
    name = "time from the fire to the plates"
    if first is None or second is None:
        if a.log is not None or first is not None or second is not None:
            unknown.append(name)
    elif abs(first - second) < PLATE_S:
        same.append(name)
    else:
        said = f"The {name} differs: {a.letter} {first / 60:.0f} min, {b.letter} {second / 60:.0f} min."
        differs.append(Difference("plate", said, False, in_sizes("plate", second - first)))


THICK_MM = 3.0
"""From how far apart slices count as unlike in thickness [mm] (estimate)."""


def _portions(a: ArmRecord, b: ArmRecord, same: list[str], differs: list[Difference]) -> None:
    """Compare how two arms are cut for their plates, where that was said of both."""
    alike = []
    for name, first, second in (
        ("grain", a.portion.grain, b.portion.grain),
        ("share of crust", a.portion.crust, b.portion.crust),
        ("place in the piece", a.portion.place, b.portion.place),
    ):
        if first and second and first != second:
            said = f"The portions differ in their {name}: {a.letter} {first}, {b.letter} {second}."
            differs.append(Difference("portion", said, False, *_unlike(first, second)))
        elif first and second:
            alike.append(name)
    thin, thick = a.portion.thickness_mm, b.portion.thickness_mm
    if thin is not None and thick is not None:
        if abs(thin - thick) >= THICK_MM:
            said = f"The slices differ in thickness: {a.letter} {thin:.0f} mm, {b.letter} {thick:.0f} mm."
            differs.append(Difference("portion", said, False, _sign(thick - thin), "thickness"))
        else:
            alike.append("thickness")
    if alike:
        same.append(f"portions ({', '.join(alike)})")


def _fires(a: ArmRecord, b: ArmRecord, same: list[str], differs: list[Difference], unknown: list[str]) -> None:
    """Compare how two arms are cooked: their phases, their wood, and when they are done."""
    if a.phases is None or b.phases is None:
        unknown += ["fire and wood", "end temperature"]
        return
    for what, name, first, second in (
        ("phases", "fire", "; ".join(a.phases), "; ".join(b.phases)),
        ("wood", "wood", ", ".join(a.wood) or "none", ", ".join(b.wood) or "none"),
        ("endpoint", "end of the cook", a.done, b.done),
    ):
        if first == second:
            same.append(name)
        else:
            said = f"The {name} differs: {a.letter} {first}, {b.letter} {second}."
            differs.append(Difference(what, said, False, *_unlike(first, second)))


def _logs(
    a: Happened | None, b: Happened | None, same: list[str], differs: list[Difference], unknown: list[str]
) -> None:  # fmt: skip
    """Compare what happened to two arms on the fire, by its log: nothing of it can be evened out any more."""
    if a is None or b is None:
        if a is not None or b is not None:
            unknown.append("the fire's log of both")
        return

    def differ(what: str, sentence: str, size: float, about: str = "") -> None:
        differs.append(Difference(what, sentence, False, size, about))

    late = b.on_s - a.on_s
    if abs(late) < ON_S:
        same.append("went on together")
    else:
        last = b if late > 0 else a
        said = f"{last.letter} went on {abs(late) / 60:.0f} min after the other."
        differ("order", said, in_sizes("order", late))
    if a.near != b.near or abs(a.from_embers - b.from_embers) >= APART:
        nearer = a if (a.near, -a.from_embers) > (b.near, -b.from_embers) else b
        differ("place", f"{nearer.letter} lay nearer the fire.", 1.0 if nearer is b else -1.0)
    else:
        same.append("place on the grate")
    for what, name, unit, least, first, second in (
        ("pit", "heat of the pit", "°C", PIT_K, a.pit_c, b.pit_c),
        ("end", "centre as it came off", "°C", END_K, a.end_c, b.end_c),
        ("wrap", "time in its wrap", "min", TIME_S / 60, a.wrapped_s / 60, b.wrapped_s / 60),
        ("baste", "basting", "times", 1.5, float(a.basted), float(b.basted)),
    ):
        if first is None or second is None:
            unknown.append(name)
        elif abs(first - second) < least:
            same.append(name)
        else:
            said = f"The {name} differs: {a.letter} {first:.0f} {unit}, {b.letter} {second:.0f} {unit}."
            scale = 60 if unit == "min" else 1
            differ(what, said, in_sizes(what, (second - first) * scale))
    for what, name, said, other in (("feel", "feel", a.feel, b.feel), ("colour", "colour", a.colour, b.colour)):
        if not said or not other:
            unknown.append(name)
        elif said == other:
            same.append(name)
        else:
            differ(what, f"The {name} differs: {a.letter} {said}, {b.letter} {other}.", *_unlike(said, other))


def _beside(a: ArmRecord, b: ArmRecord, same: list[str], differs: list[Difference]) -> None:
    """Compare what is eaten with two arms: the same sauces, a serving within a tenth, or a difference of its own."""
    first, second = dict(a.beside), dict(b.beside)
    for arm, mine, other, theirs in ((a, first, b, second), (b, second, a, first)):
        for name in [name for name in mine if name not in theirs]:
            said = f"Only {arm.letter} is eaten with {name}, {other.letter} is not: tasters may be voting for that."
            differs.append(Difference("beside", said, False, 1.0 if arm is b else -1.0, name))
    for name in [name for name in first if name in second]:
        more, less = max(first[name], second[name]), min(first[name], second[name])
        if more > less * (1 + WEIGHT_SHARE):
            most = a if first[name] == more else b
            said = f"{most.letter} gets {more:.0f} g of {name} a serving, the other {less:.0f} g: serve both alike."
            differs.append(Difference("beside", said, False, 1.0 if most is b else -1.0, name))
        else:
            same.append(f"{name} with it")
