"""The demo household: Weir House on the canal, and its lock-side supper season. All of it is made up."""

from collections.abc import Mapping, Sequence
from dataclasses import asdict
from datetime import datetime, timedelta
from hashlib import sha256
from typing import Any
from uuid import uuid5

from django.db import transaction
from ravska_core.blend import estimate, exact_parts, say_parts
from ravska_core.catalogue import catalogue
from ravska_core.coat import LAYER_KINDS, Portion, Slot, own_coat, parse_dose
from ravska_core.coat import WeighBack as CoreWeighBack
from ravska_core.heat import Phase
from ravska_core.measure import (
    parse_fire_c,
    parse_grate_cm2,
    parse_mass_g,
    parse_masses_g,
    parse_parts,
    parse_phase_s,
    parse_sears_s,
    parse_spots_c,
    parse_temperature_c,
)

from book.batches import begin_batch, fill_jar, settle_line
from book.cooks import Beginning, begin_cook, pin_cook
from book.days import set_sides
from book.demo_fires import burn, set_alight
from book.demo_season import season
from book.demo_trials import Said, by_threes, fill_in, half_tasted, scored
from book.evening import add_salt, even_salt
from book.layers import layer_of_slot, usual_layer
from book.models import (
    Batch,
    BatchLine,
    Blend,
    Cook,
    Household,
    Jar,
    Layer,
    Line,
    OwnCooker,
    Piece,
    Pour,
    Preferences,
    Revision,
    Step,
    Stock,
    Taster,
    Trial,
    Way,
    WayLayer,
    WeighBack,
)
from book.models.values import label_of, stored, stored_injection, stored_label, stored_method
from book.next_trial import next_saturday_supper
from book.steps import lay_out_steps

BLENDS: dict[str, tuple[str, str, str, list[tuple[str, str, str]]]] = {
    "lamb rub": (
        "Weir House lamb rub", "dry rub", "60 g",
        [
            ("sea-salt-flake/flake", "4", "spoon"),
            ("muscovado/unpacked", "2", "spoon"),
            ("black-pepper/cracked", "3", "spoon"),
            ("paprika/powder", "2½", "spoon"),
            ("fennel-seed/ground", "1½", "spoon"),
            ("garlic-granulated/granulated", "1", "spoon"),
            ("orange-zest/grated", "3/4", "spoon"),
        ],
    ),
    "orange and buttermilk": (
        "Orange and buttermilk", "marinade", "600 g",
        [
            ("buttermilk/liquid", "4", "spoon"),
            ("orange-juice/liquid", "2", "spoon"),
            ("kosher-dense/flake", "½", "spoon"),
            ("honey/liquid", "¼", "spoon"),
            ("orange-zest/grated", "¼", "spoon"),
            ("coriander-seed/ground", "¼", "spoon"),
            ("garlic-granulated/powder", "1/8", "spoon"),
        ],
    ),
    "duck rub": (
        "Towpath duck rub", "dry rub", "80 g",
        [
            ("kosher-dense/flake", "3", "scale"),
            ("muscovado/unpacked", "1½", "scale"),
            ("star-anise/ground", "½", "scale"),
            ("sichuan-pepper/ground", "½", "scale"),
            ("ginger-ground/powder", "½", "scale"),
            ("cinnamon/ground", "¼", "scale"),
        ],
    ),
    "soy and honey": (
        "Soy and honey bath", "marinade", "500 g",
        [
            ("soy-sauce/liquid", "2", "spoon"),
            ("water/liquid", "3", "spoon"),
            ("honey/liquid", "1", "spoon"),
            ("cider-vinegar/liquid", "½", "spoon"),
            ("ginger-ground/powder", "1/8", "spoon"),
        ],
    ),
    "goat yoghurt": (
        "Lock-keeper's goat yoghurt", "marinade", "900 g",
        [
            ("yoghurt/liquid", "6", "spoon"),
            ("lemon-juice/liquid", "½", "spoon"),
            ("table-salt/fine", "1/3", "spoon"),
            ("cumin/ground", "½", "spoon"),
            ("turmeric/powder", "1/8", "spoon"),
            ("mint-dried/leaf", "½", "spoon"),
        ],
    ),
    "goat rub": (
        "Cumin and sumac goat rub", "dry rub", "70 g",
        [
            ("kosher-dense/flake", "2", "spoon"),
            ("cumin/ground", "1½", "spoon"),
            ("sumac/coarse", "1", "spoon"),
            ("oregano/leaf", "1", "spoon"),
            ("chilli-flakes/coarse", "½", "spoon"),
            ("garlic-granulated/granulated", "½", "spoon"),
        ],
    ),
    "venison rub": (
        "Juniper rub for venison", "dry rub", "90 g",
        [
            ("sea-salt-coarse/coarse", "3", "scale"),
            ("juniper/cracked", "1½", "scale"),
            ("black-pepper/cracked", "1", "scale"),
            ("thyme/leaf", "½", "scale"),
            ("rosemary/leaf", "½", "scale"),
            ("muscovado/unpacked", "½", "scale"),
        ],
    ),
    "cheek paste": (
        "Mustard paste for beef cheek", "paste", "160 g",
        [
            ("mustard-prepared/paste", "4", "spoon"),
            ("vegetable-oil/liquid", "1", "spoon"),
            ("kosher-dense/flake", "1", "spoon"),
            ("black-pepper/ground", "1", "spoon"),
            ("paprika-smoked/powder", "1½", "spoon"),
        ],
    ),
    "trout salt": (
        "Dill salt for trout", "finishing salt", "50 g",
        [
            ("sea-salt-flake/flake", "4", "scale"),
            ("dill-dried/leaf", "½", "scale"),
            ("lemon-zest/grated", "½", "scale"),
        ],
    ),
    "lamb glaze": (
        "Lamb rub and honey glaze", "glaze", "240 g",
        [
            ("honey/liquid", "4", "spoon"),
            ("cider-vinegar/liquid", "2", "spoon"),
            ("tomato-paste/paste", "1", "spoon"),
            ("blend:lamb rub", "1", "spoon"),
        ],
    ),
    "lamb chops": (
        "Rub and lemon for lamb chops", "marinade", "300 g",
        [
            ("olive-oil/liquid", "4", "spoon"),
            ("lemon-juice/liquid", "2", "spoon"),
            ("water/liquid", "2", "spoon"),
            ("blend:lamb rub", "1½", "spoon"),
        ],
    ),
    "venison injection": (
        "Stock and red wine for venison", "injection", "400 g",
        [
            ("stock/liquid", "6", "scale"),
            ("red-wine/liquid", "3", "scale"),
            ("table-salt/fine", "5/8", "scale"),
            ("white-sugar/granulated", "1/8", "scale"),
            ("juniper/cracked", "1/16", "scale"),
        ],
    ),
    "fennel paste": (
        "Fennel paste for lamb breast", "paste", "180 g",
        [
            ("olive-oil/liquid", "6", "spoon"),
            ("fennel-seed/ground", "3", "spoon"),
            ("sea-salt-coarse/coarse", "3", "spoon"),
            ("garlic-fresh/crushed", "1½", "spoon"),
            ("lemon-zest/grated", "½", "spoon"),
        ],
    ),
    "mint relish": (
        "Mint and yoghurt relish", "glaze", "300 g",
        [
            ("yoghurt/liquid", "9", "scale"),
            ("mint-dried/leaf", "1/8", "scale"),
            ("lemon-juice/liquid", "½", "scale"),
            ("table-salt/fine", "1/10", "scale"),
        ],
    ),
    "handful rub": (
        "Lock-gate handful rub", "dry rub", "90 g",
        [
            ("kosher-dense/flake", "2", "spoon"),
            ("black-pepper/cracked", "1½", "spoon"),
            ("thyme/leaf", "1.69", "spoon"),
            ("brown-sugar/unpacked", "1", "spoon"),
            ("cayenne/powder", "0.021", "spoon"),
        ],
    ),
    "market rub": (
        "Market-hall poultry rub", "dry rub", "100 g",
        [
            ("table-salt/fine", "1", "scale"),
            ("brown-sugar/unpacked", "1", "scale"),
            ("paprika/powder", "1", "scale"),
            ("spices-unnamed/ground", "1", "scale"),
            ("garlic-granulated/powder", "1", "scale"),
            ("silica/powder", "1", "scale"),
        ],
    ),
}  # fmt: skip

METHODS: dict[str, list[dict[str, Any]]] = {
    "lamb glaze": [
        {"do": "mix", "of": ["honey/liquid", "cider-vinegar/liquid", "tomato-paste/paste"], "to": "", "by": "",
         "lasts": "", "note": "Stir until the honey has dissolved."},
        {"do": "simmer", "of": [], "to": "", "by": "by a quarter", "lasts": "6 min", "note": "Until it coats a spoon."},
        {"do": "mix", "of": ["lamb rub"], "to": "", "by": "", "lasts": "", "note": "Off the fire."},
    ],
    "venison injection": [
        {"do": "mix", "of": [], "to": "", "by": "", "lasts": "", "note": "Warm it until the salt has dissolved."},
        {"do": "rest", "of": [], "to": "", "by": "", "lasts": "20 min", "note": ""},
        {"do": "strain", "of": ["juniper/cracked"], "to": "", "by": "", "lasts": "", "note": "It would clog."},
    ],
}  # fmt: skip
"""How some of the blends are made; a step names lines by grind, or a blend by its key here."""

BY_EYE: dict[str, dict[str, tuple[float, str]]] = {
    "handful rub": {"thyme/leaf": (0.4, "small handful"), "cayenne/powder": (0.4, "pinch")}
}
"""Amounts that were taken by eye: how far they may be off, and as they were said."""

LABELS: dict[str, tuple[dict[str, object], list[str]]] = {
    "market rub": (
        {"portion": "1.2 g", "sodium": "240 mg", "sodium_as": "sodium", "sugars": "0 g", "fat": "0 g", "rule": "us",
         "minor_from": 5, "stated": []},
        ["Salt", "brown sugar", "paprika", "spices", "dehydrated garlic", "silicon dioxide"],
    ),
}  # fmt: skip
"""Bought blends: the panel as printed, and the names on the label."""

EARLIER: dict[str, list[tuple[str, list[tuple[str, str, str]]]]] = {
    "lamb rub": [
        (
            "the first, at the May supper",
            [
                ("sea-salt-flake/flake", "4", "spoon"),
                ("muscovado/unpacked", "3", "spoon"),
                ("black-pepper/ground", "2", "spoon"),
                ("paprika/powder", "2½", "spoon"),
                ("cumin/ground", "1½", "spoon"),
                ("garlic-granulated/granulated", "1", "spoon"),
            ],
        ),
        (
            "cumin shouted the lamb down",
            [
                ("sea-salt-flake/flake", "4", "spoon"),
                ("muscovado/unpacked", "3", "spoon"),
                ("black-pepper/ground", "2", "spoon"),
                ("paprika/powder", "2½", "spoon"),
                ("fennel-seed/ground", "1", "spoon"),
                ("garlic-granulated/granulated", "1", "spoon"),
            ],
        ),
        (
            "a crust that can be heard",
            [
                ("sea-salt-flake/flake", "5", "spoon"),
                ("muscovado/unpacked", "3", "spoon"),
                ("black-pepper/cracked", "3", "spoon"),
                ("paprika/powder", "2½", "spoon"),
                ("fennel-seed/ground", "1", "spoon"),
                ("garlic-granulated/granulated", "1", "spoon"),
            ],
        ),
    ],
}  # fmt: skip
"""Revisions that were kept on the way to a blend, with their notes; the draft goes on from the last."""

BRANCHES: dict[str, tuple[str, int, str, str, list[tuple[str, str, str]]]] = {
    "duck branch": (
        "Weir House rub, duck branch", 2, "lamb rub", "for skin over the embers",
        [
            ("sea-salt-flake/flake", "4", "spoon"),
            ("muscovado/unpacked", "1", "spoon"),
            ("black-pepper/ground", "2", "spoon"),
            ("paprika-smoked/powder", "2", "spoon"),
            ("fennel-seed/ground", "1", "spoon"),
            ("orange-zest/grated", "1", "spoon"),
        ],
    ),
}  # fmt: skip
"""A branch: its name, the revision it leaves, of which blend, the note of its own first revision, its lines."""

STOCK: tuple[tuple[str, str, float | None], ...] = (
    ("kosher-dense/flake", "plenty", None), ("garlic-granulated/granulated", "40 g", 40.0),
    ("honey/liquid", "20 g", 20.0),
)  # fmt: skip
"""What is in the house: grind, as typed, and as read [g]."""

SIDES: tuple[dict[str, Any], ...] = (
    {"name": "Flatbread", "hands": "20 min", "minutes": "25 min", "waits": "15 min", "cooker": "hot iron",
     "aimed": "240 °C", "tended": True},
    {"name": "Roast roots", "hands": "15 min", "minutes": "1 h", "waits": "20 min", "cooker": "oven",
     "aimed": "190 °C"},
    {"name": "Beans in the pot", "hands": "10 min", "minutes": "3 h", "waits": "20 min", "cooker": "oven",
     "aimed": "140 °C"},
)  # fmt: skip
"""What is cooked beside the shoulders, as typed. One oven cannot be at two heats at once: that is left to put right."""

TASTERS = ("Kittiwake", "Marigold", "Old Pewter", "Tamarisk", "Dabchick", "Moonraker", "Halcyon", "Juno's Wake")
"""Nicknames of boats."""


def _write_lines(draft: Revision, lines: Sequence[tuple[str, str, str]], made: Mapping[str, Blend]) -> None:
    draft.lines.all().delete()
    for at, (grind, parts, basis) in enumerate(lines):
        exact = parse_parts(parts)
        inside = made[grind.removeprefix("blend:")] if grind.startswith("blend:") else None
        Line.objects.create(
            revision=draft,
            position=at,
            grind="" if inside else grind,
            inside=inside,
            parts_numerator=exact.numerator,
            parts_denominator=exact.denominator,
            parts_typed=parts,
            basis=basis,
        )


def _make_blend(household: Household, key: str, when: datetime, made: Mapping[str, Blend]) -> Blend:
    name, kind, batch, lines = BLENDS[key]
    blend = Blend.objects.create(
        household=household,
        name=name,
        kind=kind,
        batch_g=parse_mass_g(batch),
        batch_typed=batch,
        created_at=when,
    )
    Revision.objects.create(blend=blend)
    for at, (note, earlier) in enumerate(EARLIER.get(key, ())):
        _write_lines(blend.revisions.get(kept_at__isnull=True), earlier, made)
        kept = Blend.objects.get(pk=blend.pk).keep(note)
        Revision.objects.filter(pk=kept.pk).update(kept_at=when + timedelta(days=14 * at))
    draft = blend.revisions.get(kept_at__isnull=True)
    _write_lines(draft, lines, made)
    for grind, (error, said) in BY_EYE.get(key, {}).items():
        draft.lines.filter(grind=grind).update(error=error, said=said)
    draft.method = stored_method([
        {**step, "of": [str(made[of].pk) if of in made else of for of in step["of"]]} for step in METHODS.get(key, ())
    ])  # fmt: skip
    if key in LABELS:
        panel, names = LABELS[key]
        draft.label = stored_label(panel)
        draft.written, draft.total = "percent", "fixed"
        grinds = [catalogue().grinds[grind] for grind, _, _ in lines]
        label = label_of(panel)
        assert label is not None
        shares = estimate(label, tuple(grinds)).shares
        for line, share, name in zip(draft.lines.all(), shares, names, strict=True):
            parts = exact_parts(share.middle * 100, line.position)
            line.parts_numerator, line.parts_denominator = parts.numerator, parts.denominator
            line.parts_typed, line.exact_typed, line.said = say_parts(parts), str(parts), name
            line.save()
    draft.save()
    return Blend.objects.get(pk=blend.pk)


def _weigh(blend: Blend, wanted_g: float, weighed: Sequence[float], when: datetime, jar_ml: float | None) -> None:
    """Weigh a blend out: so much of each line, in the order they are weighed; in a jar when that is all of them."""
    batch = begin_batch(blend.household, blend, wanted_g, 0.1)
    rows = list(batch.lines.all())
    for at, (row, grams) in enumerate(zip(rows, weighed, strict=False)):
        moment = when + timedelta(minutes=at)
        Pour.objects.create(line=row, number=at + 1, grams=grams, at=moment, key=uuid5(batch.pk, str(at)))
        settle_line(batch, row)
    if jar_ml is not None:
        BatchLine.objects.filter(batch=batch).update(done=True)
        fill_jar(batch, sum(weighed), jar_ml)
        Jar.objects.filter(batch=batch).update(filled_at=when)
    Batch.objects.filter(pk=batch.pk).update(started_at=when, **({"mixed_at": when} if jar_ml else {}))


def _make_branch(household: Household, key: str, when: datetime, made: Mapping[str, Blend]) -> Blend:
    name, number, of, note, lines = BRANCHES[key]
    parent = made[of].revisions.get(number=number)
    blend = Blend.objects.create(
        household=household, name=name, kind=made[of].kind, fire="direct flame", created_at=when
    )
    _write_lines(Revision.objects.create(blend=blend, parent=parent), lines, made)
    kept = Blend.objects.get(pk=blend.pk).keep(note)
    Revision.objects.filter(pk=kept.pk).update(kept_at=when)
    return Blend.objects.get(pk=blend.pk)


def _piece(name: str, cut: str, mass: str, blend: Blend) -> Beginning:
    masses = parse_masses_g(mass)
    return Beginning(name, cut, sum(masses), mass, blend, count=len(masses), masses_g=masses if len(masses) > 1 else ())


PHASES: dict[str, tuple[dict[str, str], ...]] = {
    "duck-leg": (
        {"surround": "indirect", "vessel": "rack", "aimed": "165 °C", "centre": "85 °C", "wood": "apple"},
        {"surround": "rest", "vessel": "board", "lasts": "10 min"},
    ),
    "goat-leg": (
        {"surround": "indirect", "vessel": "grate", "aimed": "120 °C", "centre": "68 °C", "wood": "alder"},
        {"surround": "indirect", "vessel": "foil", "aimed": "120 °C", "feel": "giving"},
        {"surround": "rest", "vessel": "foil", "lasts": "25 min"},
    ),
    "lamb-shoulder": (
        {"surround": "indirect", "vessel": "grate", "aimed": "120 °C", "centre": "70 °C", "wood": "cherry"},
        {"surround": "indirect", "vessel": "foil", "aimed": "120 °C", "centre": "92 °C"},
        {"surround": "rest", "vessel": "foil", "lasts": "30 min"},
    ),
    "venison-haunch": (
        {"surround": "indirect", "vessel": "grate", "aimed": "130 °C", "centre": "68 °C", "wood": "oak"},
        {"surround": "rest", "vessel": "foil", "lasts": "25 min"},
    ),
    "lamb-breast": (
        {"surround": "indirect", "vessel": "grate", "aimed": "125 °C", "lasts": "2 h", "wood": "cherry"},
        {"surround": "indirect", "vessel": "foil", "aimed": "125 °C", "feel": "like butter"},
    ),
    "beef-cheek": (
        {"surround": "hot iron", "vessel": "pan", "aimed": "230 °C", "lasts": "8 min", "turned": "2 min"},
        {"surround": "covered liquid", "vessel": "pot", "aimed": "96 °C", "feel": "like butter"},
    ),
    "venison-loin": (
        {"surround": "water bath", "vessel": "bag", "aimed": "57 °C", "lasts": "2 h"},
        {"surround": "hot iron", "vessel": "pan", "aimed": "250 °C", "sears": "60 s, 60 s"},
        {"surround": "rest", "vessel": "board", "lasts": "5 min"},
    ),
    "turkey-breast": (
        {"surround": "indirect", "vessel": "grate", "aimed": "150 °C", "centre": "74 °C", "wood": "apple"},
        {"surround": "rest", "vessel": "board", "lasts": "15 min"},
    ),
    "mackerel-whole": (
        {"surround": "direct flame", "vessel": "grate", "aimed": "220 °C", "centre": "63 °C", "turned": "4 min"},
        {"surround": "rest", "vessel": "board", "lasts": "3 min"},
    ),
    "trout-whole": (
        {"surround": "direct flame", "vessel": "grate", "aimed": "200 °C", "centre": "63 °C", "turned": "4 min"},
        {"surround": "rest", "vessel": "board", "lasts": "3 min"},
    ),
    "turkey-thigh": (
        {"surround": "indirect", "vessel": "grate", "aimed": "165 °C", "centre": "82 °C", "wood": "apple"},
        {"surround": "rest", "vessel": "board", "lasts": "15 min"},
    ),
}
"""How the demo household cooks each of its cuts, as typed."""


COOKERS: tuple[dict[str, str], ...] = (
    {"name": "The lock-side kettle", "kind": "kettle", "grate": "57 cm", "spots": "112, 118 and 137 °C"},
    {"name": "Galley oven", "kind": "oven", "grate": "42 x 36 cm", "range": "60 to 250 °C", "ready": "12 min"},
)
"""What the demo household cooks on, as typed."""


def _cooker(household: Household, typed: Mapping[str, str]) -> None:
    values: dict[str, Any] = {"kind": typed["kind"], "grate_cm2": parse_grate_cm2(typed["grate"])}
    if "range" in typed:
        values["low_c"], values["high_c"] = parse_fire_c(typed["range"])
    if "spots" in typed:
        values["spots_c"] = list(parse_spots_c(typed["spots"]))
    if "ready" in typed:
        values["ready_s"] = parse_phase_s(typed["ready"])
    OwnCooker.objects.create(household=household, name=typed["name"], typed=dict(typed), values=values)


def _phase(typed: Mapping[str, str]) -> dict[str, Any]:
    """Return a phase as the book holds it."""
    phase = Phase(
        surround=typed["surround"],
        aimed_c=parse_fire_c(typed.get("aimed", "21 °C"))[0],
        vessel=typed["vessel"],
        lasts_s=parse_phase_s(typed["lasts"]) if "lasts" in typed else None,
        centre_c=parse_temperature_c(typed["centre"]) if "centre" in typed else None,
        feel=typed.get("feel", ""),
        turned_s=parse_phase_s(typed["turned"]) if "turned" in typed else None,
        sears_s=parse_sears_s(typed["sears"]) if "sears" in typed else (),
        wood=typed.get("wood", ""),
    )
    return stored(dict(typed), asdict(phase))


def _dosed(layer: Layer, said: str) -> Layer:
    """Return a layer dosed as people say it."""
    portion = parse_dose(said, LAYER_KINDS[layer.kind].unit)
    assert isinstance(portion, Portion)
    layer.dose, layer.dose_typed, layer.dose_unit, layer.dose_error = portion.value, said, portion.unit, portion.error
    return layer


def _seed(number: int) -> str:
    """Return a seed as long as those that are drawn, the same whenever the demo is made."""
    return sha256(f"Weir House {number}".encode()).hexdigest()


def _tasted(cook: Cook, cards: Sequence[tuple[str, str, tuple[int, ...], tuple[int, ...]]], at: datetime) -> None:
    """Fill in cards (taster, preferred piece, scores of A, scores of B) for a cook that is over, and reveal it."""
    trial = cook.trial
    Step.objects.filter(piece__cook=cook).update(done_at=cook.serve_at)
    scales = ("overall", "crust", "tenderness", "juiciness", "meat flavour", "salt")
    for nickname, prefers, *scores in cards:
        told = {letter: dict(zip(scales, values, strict=True)) for letter, values in zip("AB", scores, strict=True)}
        fill_in(trial, Said(nickname, prefers=prefers, scores=told), at)
    trial.revealed_at = at
    trial.save(update_fields=["revealed_at"])
    pin_cook(cook)


def _more_days(house: Household, supper: datetime, made: Mapping[str, Blend]) -> None:
    """Begin a braise, a cook by water bath, and a picnic that goes along cold in a cool box."""
    cheek = [_piece("Pasted", "beef-cheek", "640, 610 and 590 g", made["cheek paste"])]
    begin_cook(house, "Long-lock braise, beef cheek", supper + timedelta(days=21), cheek)
    loin = [_piece("From the bath", "venison-loin", "850 g", made["venison rub"])]
    begin_cook(house, "Boathouse loin, bath and iron", supper + timedelta(days=28), loin)
    thighs = [_piece("Rubbed", "turkey-thigh", "420, 390, 440 and 410 g", made["duck rub"])]
    picnic = begin_cook(house, "Towpath picnic, turkey thighs", supper + timedelta(days=36, hours=-5), thighs)
    Cook.objects.filter(pk=picnic.pk).update(away_min=40, travels="cold", eaters=4)
    set_sides(picnic, [("Slaw", {"name": "Slaw", "hands": "20 min", "waits": "4 h"})])


def _soon(now: datetime) -> datetime:
    """Return the quarter of an hour that is about two hours away."""
    later = now + timedelta(minutes=120)
    return later.replace(minute=later.minute // 15 * 15, second=0, microsecond=0)


def load_demo(now: datetime) -> bool:
    """Fill an empty book with the demo household; return whether it was empty."""
    with transaction.atomic():
        if Household.objects.exists():
            return False
        house = Household.objects.create(name="Weir House")
        Preferences.objects.create(household=house)
        made: dict[str, Blend] = {}
        for at, key in enumerate(BLENDS):
            made[key] = _make_blend(house, key, now - timedelta(days=60, minutes=-at), made)
        for key in BRANCHES:
            made[key] = _make_branch(house, key, now - timedelta(days=40), made)
        for nickname in TASTERS:
            Taster.objects.create(household=house, nickname=nickname)
        Stock.objects.bulk_create(
            Stock(household=house, grind=grind, typed=typed, grams=grams) for grind, typed, grams in STOCK
        )
        supper = next_saturday_supper(now)

        duck = begin_cook(
            house, "Wharf lunch, duck legs", supper - timedelta(days=35, hours=5),
            [
                _piece("Rubbed", "duck-leg", "1.15 kg", made["duck rub"]),
                _piece("Marinated", "duck-leg", "1.12 kg", made["soy and honey"]),
            ],
            seed=_seed(418),
        )  # fmt: skip
        duck.pieces.update(count=4)
        Trial.objects.filter(cook=duck).update(planned_cards=len(TASTERS))
        even_salt(duck)
        rubbed, bathed = (8, 8, 7, 7, 8, 3), (6, 5, 7, 7, 6, 3)
        better, worse = (9, 9, 7, 6, 8, 3), (7, 5, 8, 7, 6, 2)
        duck_cards = [
            (name, "A", *((rubbed, bathed) if at % 3 else (better, worse))) for at, name in enumerate(TASTERS)
        ]
        _tasted(duck, duck_cards, duck.serve_at + timedelta(minutes=20))

        goat = begin_cook(
            house, "Lock-gate supper, goat leg", supper - timedelta(days=14),
            [
                _piece("Rubbed", "goat-leg", "2.1 kg", made["goat rub"]),
                _piece("Marinated", "goat-leg", "2.2 kg", made["goat yoghurt"]),
            ],
            seed=_seed(273),
        )  # fmt: skip
        goat_cards = [
            ("Kittiwake", "B", (6, 7, 5, 5, 7, 3), (8, 5, 8, 8, 6, 3)),
            ("Marigold", "B", (6, 6, 5, 6, 6, 4), (7, 6, 7, 7, 6, 3)),
            ("Tamarisk", "A", (7, 8, 6, 5, 8, 3), (6, 5, 7, 7, 5, 2)),
            ("Dabchick", "B", (5, 6, 5, 5, 6, 3), (7, 5, 8, 8, 7, 3)),
            ("Halcyon", "B", (6, 7, 4, 5, 7, 3), (8, 6, 7, 8, 6, 3)),
        ]
        _tasted(goat, goat_cards, goat.serve_at + timedelta(minutes=25))

        lamb = begin_cook(
            house, "Lock-side supper", supper,
            [
                _piece("Rubbed", "lamb-shoulder", "2.3 kg", made["lamb rub"]),
                _piece("Marinated", "lamb-shoulder", "2.25 kg", made["orange and buttermilk"]),
            ],
            seed=_seed(1897),
        )  # fmt: skip
        shoulder = lamb.pieces.get(letter="A")
        add_salt(shoulder, 0.7)
        shoulder.layers.filter(kind="pre-salt").update(hold_s=16 * 3600.0, hold_typed="16 h")
        usual_layer(shoulder, 2, made["lamb glaze"]).save()
        lay_out_steps(shoulder)
        lamb.pieces.update(target_percent=1.5, target_typed="1.5")
        bath = lamb.pieces.get(letter="B").layers.get(kind="marinade")
        bath.hold_s, bath.hold_typed = 16 * 3600.0, "16 h"
        bath.save()

        haunch = begin_cook(
            house, "Sluice Sunday, venison haunch", supper + timedelta(days=8, hours=-5),
            [
                _piece("Injected", "venison-haunch", "2.4 kg", made["venison injection"]),
                _piece("Rubbed", "venison-haunch", "2.35 kg", made["venison rub"]),
            ],
            seed=_seed(732),
        )  # fmt: skip
        haunch.pieces.update(endpoint_c=71.0, endpoint_typed="71 °C")
        needled = Layer.objects.get(piece__cook=haunch, kind="injection")
        needled.injection = stored_injection({"wants": "0.9"})
        needled.hold_s, needled.hold_typed = 8 * 3600.0, "8 h"
        needled.save()
        again = usual_layer(needled.piece, 1, made["venison injection"], "second injection")
        _dosed(again, "60 ml").save()
        rubbed_haunch = Layer.objects.get(piece__cook=haunch, kind="rub")
        _dosed(rubbed_haunch, "all of this batch").save()

        breasts = begin_cook(
            house, "Boatyard lunch, lamb breasts", supper + timedelta(days=15, hours=-5),
            [
                _piece("Pasted", "lamb-breast", "620, 580, 710 and 640 g", made["fennel paste"]),
                _piece("Rubbed", "lamb-breast", "640 and 655 g", made["lamb rub"]),
            ],
            seed=_seed(411),
        )  # fmt: skip
        for piece, said in zip(breasts.pieces.all(), ("all of this batch", "5 tbsp"), strict=True):
            _dosed(piece.layers.get(), said).save()
            usual_layer(piece, 1, made["mint relish"], "at the table").save()
            lay_out_steps(piece)
        lay_out_steps(needled.piece)
        Cook.objects.filter(pk=breasts.pk).update(eaters=8)
        crowns = [
            Beginning("Anise", "turkey-breast", 1350.0, "1.35 kg", made["duck rub"], tasted=False),
            Beginning("Sumac", "turkey-breast", 1300.0, "1.3 kg", made["goat rub"], tasted=False),
        ]
        scored(house, supper - timedelta(days=21), made, TASTERS, _seed(77))
        season(house, supper, made, TASTERS, _seed(1066))
        by_threes(house, supper - timedelta(days=27, hours=5), made, TASTERS, _seed(303))
        half_tasted(house, now, made, TASTERS[:6], _seed(640))
        alight = begin_cook(house, "Low-water lunch, turkey breast", _soon(now), crowns)
        set_sides(lamb, [(typed["name"], dict(typed)) for typed in SIDES])
        _more_days(house, supper, made)
        Cook.objects.exclude(pk=lamb.pk).update(in_hand=False)
        Cook.objects.filter(pk=lamb.pk).update(in_hand=True)
        for typed in COOKERS:
            _cooker(house, typed)
        for piece in Piece.objects.all():
            piece.phases = [_phase(typed) for typed in PHASES[piece.cut]]
            piece.save(update_fields=["phases"])
        burn(duck, 418, "still", fed=7, left_g=120.0)
        burn(goat, 273, "windy", fed=8, left_g=340.0)
        set_alight(alight, now, timedelta(minutes=50))

        ribs = Way.objects.create(household=house, name="Oiled, rubbed and glazed", made_at=now)
        slots = (Slot("binder", 1.5, grind="vegetable-oil/liquid"), Slot("rub", 3, 1800), Slot("glaze", 4))
        kinds = {"dry rub": made["goat rub"], "glaze": made["lamb glaze"]}
        for at, slot in enumerate(slots):
            row = layer_of_slot(slot, at, kinds)
            copied = [f.name for f in WayLayer._meta.fields if f.name not in ("id", "way")]
            WayLayer.objects.create(way=ribs, **{name: getattr(row, name) for name in copied})
        for taken, left, fell, area in ((60, 17.5, 3, 830), (55, 11, 4, 840)):
            coat = own_coat(CoreWeighBack(taken, left, fell, area)).value
            WeighBack.objects.create(
                household=house, cut="lamb-shoulder", surface="moist", taken_g=taken, left_g=left, fell_g=fell,
                coat_g_100cm2=coat, at=now - timedelta(days=30),
            )  # fmt: skip

        _weigh(made["goat rub"], 70, (36.1, 11.2, 9.6, 3.7, 3.2, 6.5), now - timedelta(days=15), 125)
        Jar.objects.filter(batch__blend=made["goat rub"]).update(left_g=26.0)
        _weigh(made["venison rub"], 90, (38.6, 19.1, 12.9, 6.5, 6.2, 6.5), now - timedelta(days=9), 250)
        _weigh(made["duck rub"], 80, (38.4, 19.4), now - timedelta(hours=2), None)
        return True
