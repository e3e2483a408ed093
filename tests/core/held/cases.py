"""The cases that are held: blends, edits of ratios, labels, bowls, coats, cautions, words; each named, each drawn."""

import importlib
import inspect
import pkgutil
import random
import re
from collections.abc import Iterator, Mapping
from dataclasses import MISSING, fields, is_dataclass, replace
from fractions import Fraction
from pathlib import Path
from typing import Any

import numpy as np
import ravska_core
from battery import Case
from ravska_core import blend as b
from ravska_core import bowl, cautions, coat, exchange, measure, meat, units
from ravska_core.blend import label, method_words, needle, ratio_edits, ratios, volume
from ravska_core.bowl import correcting, measuring, mixing, sharing, weighing
from ravska_core.catalogue import catalogue
from ravska_core.cautions.clocks import Clocks
from ravska_core.coat import (
    additives,
    binder,
    doses,
    drippings,
    fates,
    injection,
    ledger,
    marinade,
    side_by_side,
    sites,
    spread,
    strength,
    wetness,
)
from ravska_core.coat import target as coat_target
from ravska_core.coat.stack import as_weighed, put_layers
from ravska_core.exchange import items, lists
from ravska_core.measure import amounts
from ravska_core.measure.measures import measures
from ravska_core.meat import pieces, stages

Named = Iterator[tuple[str, Case]]
GRINDS = sorted(catalogue().grinds)
CUTS = sorted(catalogue().cuts)
WET = [key for key in GRINDS if catalogue().grinds[key].ingredient.water > 0.4]
SALTY = [key for key in GRINDS if catalogue().grinds[key].ingredient.nacl > 0.9]
CURES = [key for key in GRINDS if "cure" in catalogue().grinds[key].ingredient.flags]


# tables and constants


def constants() -> Named:
    """What the core counts with and says of its sources: every constant and usual value of every module, the rows of its
    tables."""
    for info in pkgutil.walk_packages(ravska_core.__path__, "ravska_core."):
        module = importlib.import_module(info.name)
        for name, value in vars(module).items():
            mine = not name.startswith("__") and name.strip("_").isupper() and name not in ("_RULES", "_MEASURES")
            set_here = re.compile(rf"^(\w+, )*{name}(, \w+)*(:.*)? = ", re.MULTILINE)
            if mine and not isinstance(value, re.Pattern) and set_here.search(inspect.getsource(module)):
                yield f"{info.name.removeprefix('ravska_core.')}.{name}", lambda value=value: told(value)
            if inspect.isfunction(value) and value.__module__ == info.name:
                given = {
                    key: one.default for key, one in inspect.signature(value).parameters.items()
                    if isinstance(one.default, int | float | str)
                }  # fmt: skip
                if given:
                    yield f"{info.name.removeprefix('ravska_core.')}.{name}", lambda given=given: told(given)
            if isinstance(value, type) and is_dataclass(value) and value.__module__ == info.name:
                usual = {field.name: field.default for field in fields(value) if field.default is not MISSING}
                if usual:
                    yield f"{info.name.removeprefix('ravska_core.')}.{name}", lambda usual=usual: told(usual)


def told(value: object) -> object:
    """A constant without what cannot be written down: functions, patterns, classes."""
    if isinstance(value, Mapping):
        return {str(key): told(one) for key, one in value.items()}
    if isinstance(value, list | tuple):
        return [told(one) for one in value]
    if is_dataclass(value) and not isinstance(value, type):
        return {field.name: told(getattr(value, field.name)) for field in fields(value)}
    return value if isinstance(value, bool | int | float | str | Fraction | frozenset | np.ndarray | None) else ""


# blends


def parts_drawn(r: random.Random) -> Fraction:
    return Fraction(r.choice([1, 1, 2, 3, 4, 5, 7, 1, 1, 1, 3, 27]), r.choice([1, 1, 1, 1, 2, 2, 4, 8, 3, 10]))


def lines_drawn(r: random.Random, among: list[str], count: int, inside: list[b.Blend] = []) -> tuple[b.Line, ...]:  # noqa: B006
    found = [
        b.Line(key, parts_drawn(r), r.choice(["spoon", "scale"]), r.choice(["", "", "", "share", "ratio"]),
               error=r.choice([0.0, 0.0, 0.0, 0.3, 0.05]))
        for key in r.sample(among, count)
    ]  # fmt: skip
    for one in inside:
        held = any(step.do == "strain" for step in one.method) and r.random() < 0.4
        found.insert(
            r.randrange(len(found) + 1), b.Line("", parts_drawn(r), r.choice(["spoon", "scale"]), "", one, held=held)
        )
    return tuple(found)


def dry(r: random.Random) -> b.Blend:
    return b.Blend(
        "dry rub",
        lines_drawn(r, GRINDS, r.randint(1, 9)),
        r.choice([20.0, 75.0, 300.0]),
        "rub",
        r.choice(["", *b.FIRES]),
    )


def wet(r: random.Random, kind: str = "") -> b.Blend:
    lines = (*lines_drawn(r, WET, r.randint(1, 3)), *lines_drawn(r, SALTY, 1), *lines_drawn(r, GRINDS, r.randint(1, 4)))
    count, steps = len(lines), []
    for _ in range(r.randint(0, 4)):
        of = tuple(sorted(r.sample(range(count), r.randint(1, count)))) if r.random() < 0.6 else ()
        do = r.choice(["mix", "strain", "simmer", "rest", "grind"])
        if do == "grind":  # what does not come as “ground” stays as it is where no lines are named
            of = ()
        by = r.choice([0.1, 1 / 3, 0.25, 0.0]) if do == "simmer" else 0.0
        steps.append(
            b.MethodStep(
                do, of if do != "simmer" else (), "ground" if do == "grind" else "", by, r.choice([0.0, 600.0, 5400.0])
            )
        )
    return b.Blend(
        kind or r.choice(["marinade", "glaze", "paste", "spritz"]),
        lines,
        r.choice([150.0, 800.0]),
        "liquid",
        method=tuple(steps),
    )


def nested(r: random.Random) -> b.Blend:
    inner = [dry(r), wet(r)]
    inner[0] = replace(inner[0], lines=(*inner[0].lines, *lines_drawn(r, SALTY, 1, [wet(r)])))
    return b.Blend("paste", lines_drawn(r, GRINDS, r.randint(1, 4), inner), 250.0, "nested")


def injected_blend(r: random.Random) -> b.Blend:
    water = b.Line("water/liquid", Fraction(100), "scale")
    more = lines_drawn(
        r,
        [
            "muscovado/unpacked",
            "honey/liquid",
            "cider-vinegar/liquid",
            "garlic-granulated/powder",
            "black-pepper/ground",
        ],
        r.randint(1, 3),
    )
    return b.Blend(
        "injection", (water, b.Line(r.choice(SALTY), Fraction(r.randint(2, 12)), "scale"), *more), 400.0, "stock"
    )


def bought(r: random.Random) -> b.Blend:
    lines = tuple(b.Line(key, Fraction(1), "scale") for key in r.sample(GRINDS, r.randint(3, 7)))
    rule = r.choice(["us", "eu"])
    sodium = r.choice(["120 mg", "280 mg", "60 mg", "5 mg"]) if rule == "us" else r.choice(["0.4 g", "1.2 g"])
    found = b.parse_label(r.choice(["1 g", "0.9 g", "¼ tsp (1 g)", "1 tbsp (15 ml)", "30 ml"]), sodium, r.choice(["sodium", "salt"]),
                          r.choice(["", "0 g", "0.5 g"]), r.choice(["", "0 g"]), rule, r.choice([None, None, 2]),
                          r.choice([(), (), ((0, 0.4),)]))  # fmt: skip
    return b.Blend("dry rub", lines, 100.0, "bought", label=found)


def mixture(r: random.Random) -> b.Blend:
    return r.choice([dry, dry, wet, nested])(r)


def blends() -> Named:
    for starter in catalogue().starters.values():
        first = tuple(b.Line(grind, measure.parse_parts(text), basis) for grind, text, basis in starter.lines)
        yield f"starter {starter.name}", lambda of=b.Blend(starter.kind, first, 100.0): b.read_blend(of)
    for at in range(26):
        r = random.Random(at)
        of = (dry, wet, nested, injected_blend)[at % 4](r)
        yield (
            f"blend {at}",
            lambda of=of, at=at: b.read_blend(of, measure.SPOON_SETS[sorted(measure.SPOON_SETS)[at % 3]]),
        )
        yield f"salt {at}", lambda of=of: b.read_salt(of)
        yield f"found {at}", lambda of=of: [b.findings_of(of, b.read_blend(of), coat.thin_cut_salt()), b.brine_share(b.read_blend(of)),
            needle.sugar_of_water(b.read_blend(of)), needle.clogging(b.read_blend(of).leaves, 2.0), b.as_read(of)]  # fmt: skip
    for at in range(14):
        of_label: Case = lambda at=at: bought(random.Random(100 + at))
        yield (
            f"label {at}",
            lambda of=of_label: b.estimate(of().label, tuple(part.leaves[0][0] for part in b.parts_of(of().lines))),
        )
        yield f"bought {at}", lambda of=of_label: b.read_blend(of())
    for key in GRINDS:
        grind = catalogue().grinds[key]
        yield f"grind {key}", lambda g=grind: [volume.true_ml_g(g), volume.is_fluid(g), volume.soluble_share(g), volume.solid_share(g),
            volume.volume_ml(((g, 0.7), (catalogue().grinds["water/liquid"], 0.3))),
            b.part_qualities(b.parts_of((b.Line(g.key, Fraction(1), "scale"),))[0])]  # fmt: skip
    steeped = b.Line("water/liquid", Fraction(60), "scale")
    for key in GRINDS:
        if catalogue().grinds[key].grain_mm > 0 and catalogue().grinds[key].ingredient.water > 0.3:
            of = b.Blend(
                "marinade", (steeped, b.Line(key, Fraction(40), "scale")), 100.0, method=(b.MethodStep("strain", (1,)),)
            )
            yield (
                f"strained {key}",
                lambda of=of: [b.read_blend(of).density_g_ml, b.read_blend(of).held_g, b.read_blend(of).after_g],
            )
    for share in range(0, 30, 3):
        yield (
            f"dissolved {share}",
            lambda share=share: [volume.dissolved_salt_ml_g(share / 100), b.syrup_viscosity(share * 3.0)],
        )


def ratio_changes() -> Named:
    def drawn(r: random.Random) -> ratios.Ratio:
        of = mixture(r)
        written = r.choice(["parts", "percent", "relative"])
        return ratios.Ratio(of.lines, written, r.randrange(len(of.lines)), r.choice(["free", "fixed"]))

    for at in range(30):
        r = random.Random(200 + at)
        ratio = drawn(r)
        count, one = len(ratio.lines), r.randrange(len(ratio.lines))
        yield (
            f"restate {at}",
            lambda x=ratio: [ratios.restate(x), [b.say_parts(line.parts) for line in ratios.restate(x).lines]],
        )
        yield f"set {at}", lambda x=ratio, one=one, p=parts_drawn(r): ratio_edits.set_parts(x, one, p)
        yield f"add {at}", lambda x=ratio, line=lines_drawn(r, GRINDS, 1)[0]: ratio_edits.add_line(x, line)
        yield f"remove {at}", lambda x=ratio, one=one: ratio_edits.remove_line(x, one)
        if count > 1:
            yield (
                f"border {at}",
                lambda x=ratio, one=r.randrange(count - 1), s=r.random() * 0.6: ratio_edits.move_border(x, one, s),
            )
        yield f"nudge parts {at}", lambda x=ratio, one=one, up=at % 2 == 0: ratio_edits.nudge_parts(x, one, up)
        yield (
            f"basis {at}",
            lambda x=ratio, one=one, basis=r.choice(["spoon", "scale"]): ratios.switch_basis(x, one, basis),
        )
        yield (
            f"write {at}",
            lambda x=ratio, one=one, w=r.choice(["parts", "percent", "relative"]): ratios.write_as(x, w, one),
        )
        grind = catalogue().grinds.get(ratio.lines[one].grind)
        for other in [
            key
            for key, g in catalogue().grinds.items()
            if grind and g.ingredient is grind.ingredient and g is not grind
        ][:1]:
            for hold in ("parts", "mass", "salt"):
                yield (
                    f"grind {at} {hold}",
                    lambda x=ratio, one=one, o=other, h=hold: ratio_edits.switch_grind(x, one, o, h),
                )
        for place, line in enumerate(ratio.lines):
            if line.blend is not None:
                yield f"unfold {at} {place}", lambda x=ratio, place=place: ratio_edits.unfold(x, place)
    for number in (*range(1, 60, 4), 99, 100, 101):
        for below in (1, 3, 8, 9, 10, 7):
            yield (
                f"say {number}/{below}",
                lambda x=Fraction(number, below): [
                    b.say_parts(x),
                    *(ratio_edits.nudged(x, up) for up in (True, False)),
                ],
            )
    for at in range(16):
        of = mixture(random.Random(300 + at))
        towards = ("hotter", "sweeter", "less-salt", "herbal", "smokier")[at % 5]
        yield f"nudge {at}", lambda of=of, t=towards: b.nudge(of, t)
        target = b.Target(
            ("salt", "heat", "sugar", "smoke")[at % 4], (10.0, 1.0, 5.0, 0.2)[at % 4], (20.0, 3.0, 12.0, 1.0)[at % 4]
        )
        yield f"aim {at}", lambda of=of, t=target, at=at: b.aim(of, [t], [b.Bound(0, 0.05, 0.6)] if at % 3 else [])
        yield f"swap {at}", lambda of=of: b.swaps(next(line for line in of.lines if line.blend is None))
        yield f"adapt {at}", lambda of=of, at=at: b.adapt(of, ("fish", "poultry", "tough", "")[at % 4], ("direct flame", "indirect", "")[at % 3],
            frozenset([("celery", "mustard", "soy")[at % 3]]))  # fmt: skip


# bowls


def bowls() -> Named:
    sets = sorted(measure.SPOON_SETS)
    for at in range(24):
        r = random.Random(400 + at)
        of = mixture(r)
        owned = measure.SPOON_SETS[sets[at % len(sets)]]
        poured = [r.choice([0.0, 1.0, 2.0, 5.5, 12.0]) for _ in of.lines]
        poured[0] = 3.3
        wanted = [r.choice([1.0, 2.0, 5.0, 10.0]) for _ in of.lines]
        yield f"round {at}", lambda of=of, owned=owned: measuring.rounding(of, owned)
        yield f"weighed {at}", lambda of=of, p=poured, whole=at % 2 == 0: weighing.as_weighed(of, p, whole)
        yield (
            f"order {at}",
            lambda of=of: [weighing.weigh_order(of), [sharing.mass_inside(of, n) for n in range(len(of.lines))]],
        )
        yield (
            f"rescue {at}",
            lambda of=of, w=wanted, p=poured, n=r.randrange(len(of.lines)): weighing.rescues(of, w, p, n),
        )
        taste = sorted(correcting.TASTES)[at % len(correcting.TASTES)]
        for strong in sorted(correcting.STEPS):
            yield (
                f"correct {at} {taste} {strong}",
                lambda of=of, w=wanted, t=taste, s=strong: correcting.corrections(of, w, t, s),
            )
    for at in range(4):
        of = dry(random.Random(500 + at))
        yield f"batch {at}", lambda of=of, at=at: measuring.spoon_batch(of, 20.0 + at, 90.0)
        yield f"jar {at}", lambda of=of: measuring.jar_for(b.read_blend(of).volume)
    for ml in (3, 24, 26, 45, 80, 110, 200, 330, 650, 900, 1400, 2600, 4400, 9000, 23000):
        figure = replace(b.read_blend(dry(random.Random(1))).volume, value=float(ml), low=ml * 0.85, high=ml * 1.15)
        yield f"jar {ml} ml", lambda f=figure: measuring.jar_for(f)
        yield f"jar of {ml} ml", lambda f=figure: measuring.jar_for(replace(f, low=None, high=None))
    for ml in (0.05, 0.2, 0.31, 0.6, 1.2, 3.1, 4.9, 7, 11, 16, 31, 60, 85, 118, 190, 500, 2000):
        for key in sets:
            yield (
                f"spoons {ml} {key}",
                lambda ml=ml, key=key: [
                    measure.measure_out(float(ml), measure.SPOON_SETS[key]),
                    measure.measure_out(ml * 1.07, measure.SPOON_SETS[key], 0.1),
                ],
            )
    for want in (0.3, 1.0, 4.0, 25.0, 800.0):
        for share in (0.0, 0.5, 0.9, 0.949, 0.951, 0.98, 1.0, 1.02, 1.049, 1.051, 1.2):
            yield (
                f"stand {want} {share}",
                lambda w=want, s=share: [
                    weighing.stand(w, w * s),
                    weighing.stand(w, w * s, 1.0),
                    weighing.tolerance_g(w),
                    weighing.tolerance_g(w, 1.0),
                ],
            )
    for dose in (0.0004, 0.0006, 1.0, 1.0004, 12.3, 99.9996):
        yield f"dose {dose}", lambda d=dose: mixing.batch_for_dose_g(d)
    for takes, shelf, through in (
        ((30.0, 20.0), 0.0, 1.0),
        ((30.0,), 12.0, 1.25),
        ((5.0,), 50.0, 1.0),
        ((100.0, 3.0), 40.0, 1.5),
        ((), 5.0, 1.0),
    ):
        yield f"mix {takes} {shelf}", lambda d=takes, s=shelf, t=through: mixing.to_mix(d, s, t)
    for batch, uses in ((100.0, (30.0, 20.0)), (50.0, (40.0, 30.0)), (60.0, (60.0,)), (60.0, ())):
        yield (
            f"share {batch} {uses}",
            lambda n=batch, u=uses: sharing.share_out(n, [sharing.Use(f"use {at}", g) for at, g in enumerate(u)]),
        )
    for resolution, drop in ((0.1, 0.0), (1.0, 20.0)):
        yield f"scale {resolution}", lambda res=resolution, d=drop: scaled(res, d)


def scaled(resolution_g: float, drop_outs: float) -> list[object]:
    scale = bowl.SimulatedScale(bowl.ScaleSettings(2000.0, resolution_g, drop_outs_a_minute=drop_outs), 7)
    shown: list[object] = []
    for grams in (120.0, 33.3, -20.0, 5000.0, -5000.0, 12.0):
        scale.put(grams)
        shown += [scale.read() for _ in range(12)][::4]
        if grams == 33.3:
            scale.tare()
    return shown


# coats


def piece_drawn(r: random.Random, cut: str) -> meat.Piece:
    found = catalogue().cuts[cut]
    states = {
        name: r.choice(["bare", "coated", "under"] if name == "skin" else ["bare", "coated"]) for name, _ in found.faces
    }
    mass = r.uniform(found.usual_low_g, found.usual_high_g)
    into = (
        r.choice(["", "", "", "cubes", "strips", "steaks"]) if found.unit_cm is None and found.shape != "bird" else ""
    )
    sized = r.choice([None, None, pieces.Measures(22.0, 14.0, 6.0)]) if not into else None
    return meat.Piece(
        cut, mass, r.choice([1, 1, 2, 3]), r.choice([None, None, mass * 1.2]), r.choice(sorted(pieces.GRADES)), states, r.choice(["moist", "dry"]),
        sized, into, 2.5 if into else None, endpoint_c=r.choice([None, 57.0, 74.0, 92.0]), pierced=r.random() < 0.2,
        stages=r.choice([(), (), (meat.Stage("temper", "bench", 21.0, 2400.0),)]),
    )  # fmt: skip


def layer_drawn(r: random.Random, kind: str) -> coat.Layer:
    of = coat.LAYER_KINDS[kind]
    blend: b.Blend | None = {
        "injection": injected_blend, "marinade": lambda r: wet(r, "marinade"), "cooking liquid": lambda r: wet(r, "cooking liquid"),
        "glaze": lambda r: wet(r, "glaze"), "spritz": lambda r: wet(r, "spritz"), "paste": nested,
    }.get(of.blend_kind, dry)(r)  # fmt: skip
    if kind in ("pre-salt", "finishing salt"):
        blend = coat.plain(r.choice(SALTY))
    elif kind == "binder":
        blend = coat.plain(r.choice(["olive-oil/liquid", "mustard-yellow/paste", "water/liquid"]))
    elif kind == "drippings":
        blend = None
    hold = r.choice([1800.0, 7200.0, 43200.0, 86400.0]) if of.hold_s else 0.0
    cold = r.choice([4.0, 4.0, 4.0, 12.0]) if of.when == "before" else 90.0 if kind == "cooking liquid" else 4.0
    plan = coat.Injection(wants_percent=r.choice([None, 0.4]), grid=r.choice(["hexagonal", "square"]), spacing_cm=r.choice([2.5, 4.0]),
                          sites=r.choice([(), ((0.3, 0.4), (0.6, 0.5), (0.45, 0.7))]))  # fmt: skip
    return coat.Layer(
        kind, blend, r.uniform(of.usual * 0.6, of.usual * 1.3), hold, cold, r.choice([None, None, 0.75]), r.choice(list(coat.AFTER_BATH)),
        r.choice([None, 0.0, 0.4]) if kind in ("cooking liquid", "wrap", "drippings") else None, r.choice([1, 3]) if kind in coat.EACH_TIME else 1,
        r.choice([None, measure.Amount(60.0, "ml")]) if kind == "marinade" else None,
        plan if kind in coat.INJECTIONS else coat.Injection(),
    )  # fmt: skip


STACKS = (
    ("pre-salt", "rub"), ("injection", "rub"), ("marinade",), ("binder", "rub"), ("paste",), ("pre-salt", "marinade", "glaze"),
    ("injection", "second injection"), ("rub", "spritz", "glaze"), ("rub", "wrap", "finishing salt"), ("marinade", "cooking liquid"),
    ("binder", "paste", "baste", "drippings"), ("pre-salt", "injection", "marinade", "rub", "glaze", "finishing salt"), ("rub",), ("cooking liquid", "glaze"),
)  # fmt: skip


def seasoned_drawn(at: int) -> coat.Seasoned:
    r = random.Random(600 + at)
    kinds = STACKS[at % len(STACKS)]
    layers = tuple(layer_drawn(r, kind) for kind in kinds)
    target = None
    if at % 4 == 1 and kinds[0] in ("pre-salt", "rub"):
        layers, target = (replace(layers[0], dose=None), *layers[1:]), 1.6
    return coat.Seasoned("A", piece_drawn(r, CUTS[at * 7 % len(CUTS)]), layers, target)


def coats() -> Named:
    for at in range(32):
        seasoned = seasoned_drawn(at)
        yield f"coat {at}", lambda s=seasoned, at=at: coat.read_coat(s, at_s=None if at % 2 else 5000.0)
        yield f"checked {at}", lambda s=seasoned: coat.check_coat(s)
        if at % 3 == 0:
            yield f"side {at}", lambda s=seasoned: coat.side("usual", s)
            yield f"drips {at}", lambda s=seasoned: drippings.drippings_of(s)
            yield f"give way {at}", lambda s=seasoned: coat.give_way(replace(s, target_percent=1.4), len(s.layers) - 1)
        if at % 5 == 0:
            yield f"binders {at}", lambda s=seasoned: binder.binders_for(s, coat.plain_binders())
            yield f"usual {at}", lambda s=seasoned: [coat.usual_coat(s, n) for n in range(len(s.layers))]
            yield (
                f"brought {at}",
                lambda s=seasoned: coat.brought_to(
                    s, 1.5, coat.Layer("pre-salt", coat.plain("table-salt/fine"), 0.5, 7200.0), 0
                ),
            )
    for at, cut in enumerate(CUTS):
        yield (
            f"piece {cut}",
            lambda at=at, cut=cut: [
                meat.read_piece(piece_drawn(random.Random(at), cut)),
                meat.raw_weight(cut, 8, 180.0),
            ],
        )
    for low, high, wanted in ((0.5, 2.0, (1.0, 1.4)), (1.1, 1.2, (0.8, 0.9)), (0.2, 0.3, (1.0, 1.0))):
        yield f"common {low}", lambda a=low, c=high, w=wanted: coat_target.common_salt((a, c), w)
    for percent in (0.0, 0.3, 0.49, 0.5, 0.8, 0.99, 1.0, 1.3, 1.5, 1.7, 2.0, 2.2, 2.5, 2.51, 3.0):
        yield f"zone {percent}", lambda p=percent: doses.salt_zone(p)
    for back in ((60.0, 20.0, 4.0), (30.0, 0.0, 0.0), (50.0, 49.0, 0.0), (12.5, 2.5, 1.0), (10.0, 12.0, 0.0), (10.0, 10.0, 0.0), (10.0, 4.0, 6.0),
                 (0.0, 0.0, 0.0), (10.0, -1.0, 0.0), (10.0, 0.0, -1.0), (20000.0, 1.0, 0.0), (20001.0, 1.0, 0.0)):  # fmt: skip
        yield f"weigh back {back}", lambda x=back: coat.own_coat(coat.WeighBack(*x, 640.0))
    for own in ([], [4.0], [4.0, 5.0], [4.0, 5.0, 9.0], [1.0] * 8):
        yield (
            f"learned {own}",
            lambda own=own: [coat.learned_coat(5.0, own), coat.learned_stays(0.85, [x / 10 for x in own])],
        )


def deeper() -> Named:
    """Sites, injections, baths and wet surfaces, each by itself."""
    for cut in CUTS[::3]:
        piece = meat.read_piece(meat.Piece(cut, catalogue().cuts[cut].usual_high_g))
        face = coat.face_of(piece.solid, piece.bones)
        for spacing, grid in ((2.0, "hexagonal"), (3.5, "square")):
            yield f"sites {cut} {grid}", lambda f=face, s=spacing, g=grid: faced(f, coat.lay_sites(f, s, g))
        own = ((0.1, 0.1), (0.5, 0.5), (0.52, 0.5), (0.9, 0.4), (0.02, 0.95))
        yield f"own sites {cut}", lambda f=face, o=own: faced(f, coat.off_the_bone(f, o))
        yield (
            f"wrong sites {cut}",
            lambda f=face, o=own: list(sites.wrong_with(f, o)),
        )
    for wants in (0.2, 0.8, 2.0):
        for at in range(4):
            of = injected_blend(random.Random(700 + at))
            yield (
                f"strength {wants} {at}",
                lambda w=wants, of=of: strength.strength_of(w, b.read_blend(of), 1800.0, 200.0, 0.85, 10.0),
            )
            yield (
                f"strongest {wants} {at}",
                lambda of=of: [strength.strongest(b.read_blend(of)), strength.check_liquid(b.read_blend(of))],
            )
    for before, after in ((2000.0, 2200.0), (2000.0, 2000.0), (1500.0, 1740.0)):
        yield (
            f"pump {before} {after}",
            lambda a=before, c=after: [injection.pump_percent(a, c), injection.liquid_g(a, 10.0, 0.85)],
        )
    for celsius in (-5.0, 0.0, 4.0, 21.0, 60.0, 78.0, 100.0):
        yield (
            f"steam {celsius}",
            lambda c=celsius: [
                wetness.saturation_pa(c),
                wetness.evaporation_kg_m2_s(c, 40.0, 10.0, 110.0),
                wetness.drying_s(0.4, wetness.evaporation_kg_m2_s(c, 40.0, 10.0, 110.0)),
            ],
        )
    for store in (0.0, 0.05, 0.1, 0.2, 0.4, 0.8, 2.0):
        yield f"wet {store}", lambda s=store: wetness.wetness(s)
    for yields, water in ((0.6, 0.7), (0.75, 0.72), (0.95, 0.76), (1.0, 0.7)):
        yield f"drip {yields}", lambda y=yields, w=water: fates.drip_share(y, w)
    for at in range(8):
        bath = wet(random.Random(800 + at), "marinade")
        for meat_class in ("fish", "poultry", "tender_red", "sliced_pork", "tough", "large_joint"):
            for thickness in ("thin", "medium", "thick"):

                def windowed(bath: b.Blend = bath, m: str = meat_class, t: str = thickness) -> object:
                    found = [marinade.hold_window(b.read_blend(bath), m, t, c) for c in (4.0, 21.0)]
                    return [
                        found,
                        [marinade.says_where(found[0].limits, hours * 3600.0) for hours in (0.2, 1, 3, 7, 14, 30, 80)],
                    ]

                yield f"window {at} {meat_class} {thickness}", windowed
        yield f"acid {at}", lambda bath=bath: marinade.acid_class(b.read_blend(bath))
    for celsius in (-2.0, 0.0, 4.0, 5.0, 10.0, 15.0, 21.0, 35.0, 57.0):
        yield f"faster {celsius}", lambda c=celsius: [marinade.faster_than_cold(c), meat.place_of(c)]
    for half in (1.0, 3.0, 7.0):
        held = (meat.Stage("thaw", "bench", 21.0, 7200.0), meat.Stage("hold", "fridge", 4.0, 86400.0), meat.Stage("temper", "outside", 35.0, 5400.0),
                meat.Stage("hold", "warm water", 57.0, 9000.0))  # fmt: skip
        for intact in (True, False):
            for count in range(1, 5):
                yield (
                    f"clocks {half} {intact} {count}",
                    lambda h=half, i=intact, kept=held[:count]: stages.clocks_of(kept, h, i),
                )
        yield f"warms {half}", lambda h=half: [stages.centre_warms_s(h), stages.surface_warms_s()]
    for at in range(6):
        seasoned = seasoned_drawn(at * 3)
        if CURES and at % 2:
            cure = coat.Layer("pre-salt", coat.plain(CURES[0]), 0.25 * at, 86400.0)
            seasoned = replace(seasoned, layers=(cure, *seasoned.layers))

        def added(s: coat.Seasoned = seasoned) -> object:
            puts = put_layers(s, meat.read_piece(s.piece), measure.SPOON_SETS["us"])
            stays = [0.9] * len(puts)
            return [additives.nitrite_of(puts, stays, s.piece.mass_g, s.piece.cut), additives.phosphate_percent(puts, stays, s.piece.mass_g),
                    ledger.servings_of(meat.read_piece(s.piece), 150.0)]  # fmt: skip

        yield f"additives {at}", added
        yield f"as weighed {at}", lambda s=seasoned: [as_weighed(layer, s.piece.mass_g) for layer in s.layers]
        yield f"sides {at}", lambda s=seasoned: side_by_side.sides([("a", s), ("b", replace(s, layers=s.layers[:1]))])


def faced(face: Any, laid: Any) -> object:
    return [len(laid), laid[:6], sites.widest_gap(face, laid), spread.least_tenth(face, laid, 1.2) if laid else None,
            spread.spread_of(face, laid, 0.8), sites.beside_bone(face, (0.4, 0.5), laid[:3])]  # fmt: skip


# cautions


def judged() -> Named:
    numbers: dict[str, list[float | None]] = {
        "fat_share": [0.0, 0.2, 0.21, 0.6], "hold_s": [0.0, 3600.0, 90000.0], "hold_c": [4.0, 5.0, 10.0, 25.0, 60.0],
        "on_s": [0.0, 7200.0, 90000.0, 300000.0], "on_warm_s": [0.0, 3600.0, 7200.0, 7300.0, 90000.0], "window_high_s": [None, 3600.0, 43200.0],
        "salt_percent": [0.5, 1.5, 2.0, 2.5, 4.0], "thin_percent": [0.5, 2.0, 3.0, 6.0], "fire_s": [600.0, 7200.0, 20000.0],
        "sodium_mg": [300.0, 799.0, 801.0, 1999.0, 2001.0, 4000.0], "endpoint_c": [None, 50.0, 57.0, 60.0, 62.7, 62.8, 63.0, 68.0, 71.0, 71.1, 73.8, 73.9, 74.0, 95.0],
        "nitrite_mg_kg": [0.0, 100.0, 120.0, 156.0, 200.0, 700.0], "phosphate_percent": [0.0, 0.3, 0.5, 0.6], "brine_percent": [0.0, 3.0, 5.0, 12.0, 27.0], "bore_mm": [1.0, 2.0],
    }  # fmt: skip
    animals = sorted({cut.animal for cut in catalogue().cuts.values()})
    flags = sorted({flag for i in catalogue().ingredients.values() for flag in i.flags})
    truths = [f.name for f in fields(cautions.Situation) if f.type in ("bool", bool)]
    for at in range(300):
        r = random.Random(900 + at)
        given: dict[str, Any] = {name: r.choice(values) for name, values in numbers.items() if r.random() < 0.6}
        given |= {name: r.random() < 0.5 for name in truths if r.random() < 0.5}
        given |= {
            "animal": r.choice(animals),
            "flags": frozenset(r.sample(flags, r.randint(0, 3))),
            "allergens": tuple(r.sample(["celery", "soy", "milk"], r.randint(0, 2))),
        }
        given |= {"clogs": r.choice(["", "black pepper"]), "used_after": r.choice(["", "glaze"])}
        given["clocks"] = Clocks(
            *(r.choice([0.0, 1800.0, 3600.0, 7200.0, 7201.0, 14400.0, 90000.0, 200000.0, 500000.0]) for _ in range(5)),
            r.random() < 0.2,
        )
        yield (
            f"situation {at}",
            lambda g=given: [
                [c.id, c.level, c.sentence, c.action, c.source] for c in cautions.cautions_for(cautions.Situation(**g))
            ],
        )


# words


def words() -> Named:
    numbers = [
        "1",
        "2",
        "½",
        "1½",
        "2¾",
        "1/3",
        "2/3",
        "1",
        "1/2",
        "0.5",
        ".25",
        "2,5",
        "1,500",
        "0",
        "-1",
        "10/0",
        "12.",
        "⅛",
        "ten",
        "1e3",
        "٣",
        "4⁄5",
        "1",
        "000",
    ]
    numbers = [*numbers, "1 1/2", "1 1/2 1/2", "", " 7 ", "9" * 41]
    masses = [
        *measure_words(["g", "kg", "oz", "lb", "lbs", "pounds", "ounces", "mg", "stone", "", "lb 4 oz", "kg 200 g"])
    ]
    for text in numbers:
        yield f"number {text}", lambda t=text: [float(measure.read_number(t, "x"))]
        yield f"parts {text}", lambda t=text: measure.parse_parts(t)
        yield f"between {text}", lambda t=text: measure.parse_number(t, "x", 0.5, 2.5, "a number")
    for text in masses:
        yield f"mass {text}", lambda t=text: measure.parse_mass_g(t)
        yield f"bare mass {text}", lambda t=text: measure.parse_mass_g(t, "m", 0.1, 5000, "g")
    for text in measure_words(["min", "h", "hours", "days", "d", "s", "weeks", "h 30 min", "", "hr"]):
        yield f"time {text}", lambda t=text: measure.parse_duration_s(t)
    for text in measure_words(["cm", "mm", "in", "inches", '"', "ft", "m", ""]):
        yield f"length {text}", lambda t=text: measure.parse_length_cm(t)
        yield f"bare length {text}", lambda t=text: measure.parse_length_cm(t, "x", 0.05, 10, "mm")
    for text in measure_words(
        ["ml", "l", "cl", "dl", "cup", "cups", "tbsp", "tsp", "fl oz", "oz", "g", "pint", "quart", "gallon", ""]
    ):
        yield f"amount {text}", lambda t=text: measure.parse_amount(t, "x")
        yield f"small amount {text}", lambda t=text: measure.parse_amount(t, "x", 100)
    for text in (
        "57",
        "57 °C",
        "135 F",
        "100",
        "101",
        "212F",
        "213 F",
        "30",
        "29.9",
        "86 F",
        "−4",
        "-4 C",
        "40 f",
        "4",
        "hot",
        "63.5c",
        "95 C",
        "96 C",
        "205 F",
    ):
        yield f"centre {text}", lambda t=text: amounts.parse_temperature_c(t)
        yield f"held {text}", lambda t=text: amounts.parse_held_c(t)
    for text in (
        "by a third",
        "to half",
        "by 30 %",
        "to 60%",
        "1/3",
        "0.3",
        "by 0.4 %",
        "by 0.5 %",
        "by 95 %",
        "by 96 %",
        "to 4 %",
        "two thirds",
        "by three quarters",
        "a lot",
        "30",
        "down by a quarter",
        "one-third",
        "a fifth",
        "a tenth of it",
    ):
        yield f"reduction {text}", lambda t=text: method_words.parse_reduction(t)
    for seconds in (0, 1, 29, 59, 60, 90, 3599, 3600, 5400, 7199, 7260, 86399, 86400, 90000, 172800, 266400, 604800):
        yield f"says {seconds} s", lambda s=seconds: units.say_duration(float(s))
    for text in (
        "0.9 g",
        "¼ tsp (1 g)",
        "1 tbsp (15 ml)",
        "30 ml",
        "1 fl oz",
        "2 tsp",
        "½ cup (120 ml)",
        "about 1 g",
        "1.25 g",
        "1/4 tsp",
        "1 EL",
        "nothing",
        "1 g or 2",
        "2000 ml",
        "0.05 ml",
        "1 oz",
    ):
        yield f"portion {text}", lambda t=text: label.read_portion(t)
    for rule in ("us", "eu"):
        for amount in (0.0, 0.004, 0.139, 0.14, 0.141, 0.39, 0.4, 0.5, 4.9, 5.0, 9.9, 10.0, 20.0):
            for what in ("sodium", "sugars", "fat"):
                yield (
                    f"rounding {rule} {what} {amount}",
                    lambda w=what, a=amount, r=rule: label.rounding_half_g(w, a, r),
                )
    for text in ("salt, sugar, spices", "Sugar, salt (40 %), paprika, contains 2% or less of: garlic powder, onion powder", "spices (pepper, cumin), salt", "Sea salt 30%, chilli, E621",
                 "mustard (water, vinegar, mustard seed), honey", "", "a, " * 50, "INGREDIENTS: brown sugar; salt. May contain celery", "salt [sea], sugar {cane}"):  # fmt: skip
        yield f"list of {text[:30]}", lambda t=text: b.read_ingredients(t)
    for text in STEPS_SAID:
        yield (
            f"step {text}",
            lambda t=text: method_words.parse_step(
                t, ["brown sugar", "sugar", "black pepper, cracked", "cider vinegar"], ["ground", "cracked"]
            ),
        )
    for kind in KINDS:
        for at in range(3):

            def usual(kind: str = kind, at: int = at) -> object:
                of = mixture(random.Random(1500 + at))
                return b.usual_steps(kind, [part.leaves for part in b.parts_of(of.lines)])

            yield f"usual {kind} {at}", usual
    for share in (0.25, 1 / 3, 0.5, 2 / 3, 0.75, 0.1, 0.333, 0.4):
        yield f"share {share}", lambda s=share: b.say_share(s)


STEPS_SAID = (
    "Mix in brown sugar; cider vinegar", "Simmer down by a third, 10 min", "Simmer to half", "Grind black pepper, cracked to ground", "Strain", "Strain out black pepper, cracked",
    "Rest 2 h", "Leave overnight in the fridge", "Whisk the sugar and the vinegar", "Boil 5 to 8 minutes", "Sing to it", "Let it cool. Then wait 1 day", "Reduce by about 20 %",
    "Add sugar", "Crush everything to cracked",
)  # fmt: skip
KINDS = ("dry rub", "paste", "binder", "marinade", "injection", "glaze", "spritz", "cooking liquid", "finishing salt")


def measure_words(said: list[str]) -> Iterator[str]:
    for number in ("1", "2", "0", "2 1/2", "½", "0.4", "300", "99999", "1,5"):
        for unit in said:
            yield f"{number} {unit}".strip()


def listed() -> Named:
    texts = [line.split(" => ")[0] for line in CORPUS.read_text().splitlines() if line and not line.startswith("#")]
    for text in [*texts, *MORE_LINES]:
        yield f"line {text}", lambda t=text: lists.read_list(t)
    for key in sorted(measure.SPOON_SETS):
        yield f"measures {key}", lambda key=key: {name: one for name, one in measures(measure.SPOON_SETS[key]).items()}
        yield (
            f"by {key}",
            lambda key=key: [
                lists.read_list(t, measure.SPOON_SETS[key]) for t in ("2 tbsp salt", "1 cup brown sugar", "½ tsp cumin")
            ],
        )
    for text in ("2 tbsp", "a pinch", "30 g", "3 cloves", "1½ cups", "much", "2-3 tsp", "1 large"):
        yield f"how much {text}", lambda t=text: [lists.read_amount(t), items.by_eye(lists.read_amount(t))]
    for text in texts[::9]:
        yield (
            f"document {text}",
            lambda t=text: exchange.bring(f"# A rub\n\n- {t}\n- 1 tsp salt\n\n1. Mix everything.\n2. Rest 10 min."),
        )


MORE_LINES = (
    "two tablespoons of smoked paprika", "paprika 3 tbsp", "salt: 2 tsp", "3 parts salt", "1 part pepper", "20 % salt", "salt 2 %", "2 tbsp/30 g salt", "12 g salt (2 tsp)", "1 small onion",
    "1 medium onion", "half a cup of honey", "1 (30 g) knob of butter", "2 heaped tsp cumin", "1 scant cup sugar", "3 generous pinches of salt", "about 2 tsp salt", "1 lb brown sugar", "1 stick butter",
    "juice of 2 limes", "zest of 1 lemon", "salt, pepper and paprika", "1 tsp salt, 2 tsp pepper", "1 tsp salt and 2 tsp pepper", "equal parts salt, sugar", "1 tbsp black pepper, coarsely ground",
)  # fmt: skip

CORPUS = Path(__file__).parents[1] / "exchange/spoken_corpus.txt"
SUBJECTS = {
    "constants": constants,
    "blends": blends, "ratios": ratio_changes, "bowls": bowls, "coats": coats, "deeper": deeper, "cautions": judged,
    "words": words, "lists": listed,
}  # fmt: skip
