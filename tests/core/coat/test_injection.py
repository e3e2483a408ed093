"""Injection: pump, liquid and its salt, sites, strokes, evenness, clogs, weights. Science.md section 6."""

import dataclasses
import math

import pytest
from builders import blend
from hypothesis import given
from hypothesis import strategies as st
from ravska_core.blend import SATURATION, MethodStep, read_blend
from ravska_core.catalogue import Bone, catalogue
from ravska_core.coat import (
    Injection,
    Layer,
    Seasoned,
    face_of,
    give_way,
    injection_of,
    lay_sites,
    off_the_bone,
    plain,
    read_coat,
)
from ravska_core.coat import Injection as CoreInjection
from ravska_core.coat.additives import nitrite_mg_kg, nitrite_of
from ravska_core.coat.injection import liquid_g, pump_percent
from ravska_core.coat.sites import Face, widest_gap, wrong_with
from ravska_core.coat.strength import salt_needed, strongest
from ravska_core.diffusion import diffusivity_m2_s, lattice_evenness
from ravska_core.measure import Amount
from ravska_core.meat import Piece, read_piece
from ravska_core.working import BadInput

HOUR = 3600.0
STOCK = blend(("stock/liquid", 2, "scale"), ("red-wine/liquid", 1, "scale"), ("table-salt/fine", "1/10", "scale"),
              kind="injection", batch_g=400)  # fmt: skip
JOINT = Piece("pork-shoulder", 2000)


def read(piece: Piece = JOINT, blend=STOCK, dose: float | None = 10, hold: float = 8 * HOUR, more=(), **plan):
    layer = Layer("injection", blend, dose, hold, injection=Injection(**plan))
    return read_coat(Seasoned("A", piece, (layer, *more)), cored=False)


# USDA processing inspectors' calculations handbook, from memory: pump = (after - before) / before
@pytest.mark.parametrize(("before", "after", "pump"), [(100, 110, 10), (2000, 2150, 7.5), (900, 1080, 20)])
def test_pump_is_the_published_formula(before, after, pump):
    assert pump_percent(before, after) == pytest.approx(pump)


def test_liquid_and_its_salt_come_from_pump_and_salt_wanted():
    # by hand: 2,000 g pumped 10 % with 85 % staying take 235.3 g; 1 % of 2,000 g in the 200 g that stay is 10 %
    assert liquid_g(2000, 10, 0.85) == pytest.approx(235.294, abs=1e-3)
    assert salt_needed(1.0, 2000, 235.294, 0.85) == pytest.approx(0.1, abs=1e-6)
    found = read(wants_percent=1.0).layers[0].injection
    edible = read_piece(JOINT).edible.value  # 8 % of it is bone
    assert found.strength.needed.value == pytest.approx(100 * 0.01 * edible / 200)
    mixed = found.strength.of_g * found.liquid_percent / 100 + found.strength.add_g * 0.985
    assert mixed / 235.294 * 100 == pytest.approx(found.strength.needed.value, rel=1e-6)
    assert found.strength.of_g + found.strength.add_g == pytest.approx(235.294, abs=0.01)
    # the other way: too salty already, so water goes in
    thin = read(wants_percent=0.2).layers[0].injection.strength
    assert thin.grind == "water/liquid"
    assert thin.of_g * found.liquid_percent == pytest.approx(235.294 * thin.needed.value, rel=1e-6)
    right = read(wants_percent=found.liquid_percent * 200 / edible)
    assert right.layers[0].injection.strength.add_g == 0
    assert right.salt.value == pytest.approx(found.liquid_percent * 200 / edible)


def test_a_liquid_above_saturation_is_refused_with_what_would_do():
    # NaCl in water at 20 C: 35.9 g to 100 g, handbook figure from memory
    assert pytest.approx(35.9 / 135.9, abs=5e-4) == SATURATION
    with pytest.raises(BadInput) as refusal:
        read(dose=2, wants_percent=1.5)
    assert refusal.value.argument == "layers.0.injection.wants"
    least = float(refusal.value.sentence.split("Pump at least ")[1].split(" %")[0])
    assert read(dose=least + 0.1, wants_percent=1.5).layers[0].injection.strength.add_g > 0
    brine = blend(("water/liquid", 70, "scale"), ("table-salt/fine", 30, "scale"), kind="injection")
    with pytest.raises(BadInput, match="Thin 1 kg of it with 130 g") as refusal:
        read(blend=brine)
    assert refusal.value.argument == "layers.0.blend"
    thinned = blend(("water/liquid", 83, "scale"), ("table-salt/fine", 30, "scale"), kind="injection")
    assert read(blend=thinned).salt.value > 1
    assert strongest(read_blend(plain("water/liquid"))) == pytest.approx(0.264, abs=2e-3)
    with pytest.raises(BadInput, match="hardly any water"):
        read(blend=plain("vegetable-oil/liquid"))


@pytest.mark.parametrize(("grid", "rows"), [("hexagonal", 2 / math.sqrt(3)), ("square", 1.0)])
def test_a_grid_has_as_many_sites_as_its_area_takes_and_its_known_widest_gap(grid, rows):
    face = Face(60, 45, False, 8)
    sites = lay_sites(face, 2.5, grid)
    assert len(sites) == pytest.approx(60 * 45 / 2.5**2 * rows, rel=0.08)
    places = [(x * 60, y * 45) for x, y in sites]
    nearest = [min(math.dist(p, q) for q in places if q != p) for p in places]
    assert min(nearest) == pytest.approx(2.5, abs=0.02)
    # between sites it is spacing over root 3 or root 2, by hand; a corner lies farther out
    assert 2.5 / math.sqrt(3 if grid == "hexagonal" else 2) - 0.1 < widest_gap(face, sites).cm < 3


def test_the_widest_gap_is_where_a_ruler_finds_it():
    # by hand: from the middle of a 10 cm square to its corner
    square = Face(10, 10, False, 5)
    alone = widest_gap(square, ((0.5, 0.5),))
    assert (alone.cm, alone.wide) == (pytest.approx(math.sqrt(50)), True)
    left = widest_gap(square, ((0.0, 0.5),))
    assert (left.x, left.cm) == (1.0, pytest.approx(math.hypot(10, 5)))
    # on a round face the corner is no meat, and bone wants none
    assert widest_gap(Face(10, 10, True, 5), ((0.5, 0.5),)).cm == pytest.approx(5, abs=0.15)
    boned = Face(10, 10, False, 5, (Bone(1, 0, 1, 1, 0.4),))
    assert widest_gap(boned, ((0.0, 0.5),)).x < 0.82
    assert widest_gap(square, ()) is None


def test_evenness_is_the_lattices_own_and_is_said():
    # hexagonal lattice, 25 mm, 24 h cold: 0.537 of the mean, square 0.247 (science.md section 5)
    rest = (Layer("pre-salt", plain("table-salt/fine"), 0.3, 8 * HOUR),)
    found = read(hold=16 * HOUR, more=rest).layers[0].injection
    assert found.evenness.value == pytest.approx(53.7, abs=0.1)
    assert "9.3 mm from each site" in found.says[0]  # 2 sqrt(D t)
    square = read(hold=16 * HOUR, more=rest, grid="square").layers[0].injection
    assert square.evenness.value == pytest.approx(24.7, abs=0.1)
    wide = read(hold=24 * HOUR, spacing_cm=4.0).layers[0].injection
    dt = diffusivity_m2_s(4) * 24 * HOUR * 1e4
    assert wide.evenness.value == pytest.approx(lattice_evenness(4.0, dt) * 100)


def test_millilitres_strokes_and_fills_agree_with_a_hand_calculation():
    found = read().layers[0].injection
    density = read_blend(STOCK).density_g_ml
    ml = 2000 * 0.1 / 0.85 / density
    count = len(found.sites)
    assert found.liquid_ml == pytest.approx(ml)
    assert found.expected_g == pytest.approx(2200)  # 2 kg and a tenth of it
    assert read(before_g=1950).layers[0].injection.expected_g == pytest.approx(2150)
    assert found.site_ml.value == pytest.approx(ml / count)
    assert found.strokes == math.ceil(ml / count / 5)
    depth_cm = read_piece(JOINT).solid.thickness_cm * 0.8
    assert found.says[-1].startswith(f"Push the needle {depth_cm:.0f} cm deep and draw it back slowly")
    assert ("times a site" in found.says[-1]) == (found.strokes > 1)
    assert "times a site" not in read(stroke_ml=50).layers[0].injection.says[-1]
    assert found.stroke_ml * found.strokes_in_all == pytest.approx(ml)
    assert found.fills == math.ceil(ml / 60)
    assert found.sites_a_fill == math.floor(60 / (ml / count))
    four = read(Piece("duck-leg", 1150, 4)).layers[0].injection
    assert four.sites_in_all == 4 * len(four.sites)
    assert read(syringe_ml=30).layers[0].injection.fills == math.ceil(ml / 30)


@pytest.mark.parametrize("cut", sorted(key for key, cut in catalogue().cuts.items() if cut.shape != "strips"))
@pytest.mark.parametrize("spacing", [2.0, 3.5])
def test_no_site_of_any_cut_lies_on_bone_or_beyond_the_edge(cut, spacing):
    row = catalogue().cuts[cut]
    piece = read_piece(Piece(cut, row.usual_low_g))
    face = face_of(piece.solid, piece.bones)
    sites = lay_sites(face, spacing)
    assert sites
    wrong = list(wrong_with(face, sites))
    # the smallest bones leave no room beside them; then one site stands in the middle, and is named
    assert not any(wrong) or len(sites) == 1


shares = st.floats(0, 1, allow_nan=False)


@given(st.lists(st.tuples(shares, shares), max_size=25), st.sampled_from(["lamb-leg", "pork-ribs", "duck-leg"]))
def test_moving_sites_off_the_bone_leaves_good_ones_alone_and_no_bad_one(sites, cut):
    piece = read_piece(Piece(cut, catalogue().cuts[cut].usual_high_g))
    face = face_of(piece.solid, piece.bones)

    def wrong(site):
        return wrong_with(face, [site])[0]

    moved = off_the_bone(face, sites)
    assert not any(wrong(site) for site in moved)
    kept = {(round(x, 4), round(y, 4)) for x, y in sites if not wrong((x, y))}
    assert kept <= set(moved)
    assert off_the_bone(face, moved) == moved


def test_a_site_on_bone_gets_nothing_and_is_named_with_a_way_on():
    own = ((0.3, 0.3), (0.33, 0.5), (0.7, 0.7), (0.01, 0.01))  # the second on the blade bone, the last off the meat
    found = read(sites=own).layers[0].injection
    assert [(one.site, one.why) for one in found.misplaced] == [(1, "bone"), (3, "edge")]
    assert found.sites_in_all == 2
    assert found.asks[0].startswith("Site 2 lies on bone")
    assert found.gap.cm > 5
    assert any("widest gap" in said for said in found.says)
    # the cook knows better where the bone lies
    elsewhere = dataclasses.replace(JOINT, bones=(Bone(0.8, 0.1, 0.9, 0.2, 0.05),))
    assert [one.site for one in read(elsewhere, sites=own).layers[0].injection.misplaced] == [3]


def test_a_coarse_spice_clogs_until_it_is_strained_or_the_needle_is_wider():
    lines = (("stock/liquid", 9, "scale"), ("juniper/cracked", 1, "scale"), ("sea-salt-coarse/coarse", 0.2, "scale"))
    spiced = blend(*lines, kind="injection")
    clog = read(blend=spiced).layers[0].injection.clog
    assert [one.grind for one in clog.coarse] == ["juniper/cracked"]  # coarse salt dissolves
    assert clog.most_mm == pytest.approx(2 / 3)
    grain = catalogue().grinds["juniper/cracked"].grain_mm
    assert not read(blend=spiced, bore_mm=grain * 3 + 0.01).layers[0].injection.clog.coarse
    strained = dataclasses.replace(spiced, method=(MethodStep("strain"),))
    assert not read(blend=strained).layers[0].injection.clog.coarse
    assert "clog" in {c.id for c in read(blend=spiced).cautions}
    syrup = blend(("honey/liquid", 4, "scale"), ("water/liquid", 1, "scale"), kind="injection")
    assert "thick" in {c.id for c in read(blend=syrup).cautions}


def test_what_was_weighed_goes_before_what_is_usual():
    # by hand: 2,170 - 2,000 g is 8.5 %; of 250 g used 68 % stayed
    found = read(after_g=2170, used=Amount(250, "g"))
    assert found.layers[0].injection.pump.value == pytest.approx(8.5)
    assert found.layers[0].injection.expected_g == pytest.approx(2170)
    assert found.layers[0].injection.stays.value == pytest.approx(68)
    assert found.layers[0].dose_g == pytest.approx(250)
    salt = 170 * read_blend(STOCK).salt.value / 100
    assert found.salt.value == pytest.approx(salt / found.piece.edible.value * 100)
    assert read(after_g=2170, wants_percent=0.9).layers[0].injection.strength is None  # it is in already
    planned = read(after_g=2170).layers[0].injection
    assert planned.stays.value == pytest.approx(170 / 235.294 * 100, rel=1e-4)
    in_ml = read(after_g=2170, used=Amount(250 / read_blend(STOCK).density_g_ml, "ml"))
    assert in_ml.layers[0].dose_g == pytest.approx(250)
    arm = Seasoned("A", JOINT, (Layer("injection", STOCK, 10, HOUR, injection=Injection(after_g=2170)),), 1.0)
    with pytest.raises(BadInput, match="was weighed"):
        give_way(arm, 0)


def test_injecting_again_mid_cook_goes_by_weight_and_warns():
    first = read()
    again = Layer("second injection", STOCK, 3)
    both = read_coat(Seasoned("A", JOINT, (Layer("injection", STOCK, 10, 8 * HOUR), again)), cored=False)
    added = 2000 * 0.03 * read_blend(STOCK).salt.value / 100 / both.piece.edible.value * 100
    assert both.salt.value - first.salt.value == pytest.approx(added)
    assert both.layers[1].dose_g == pytest.approx(60 / 0.7)
    assert "stays in the lines" in both.layers[1].injection.says[0]
    assert {"inject-again", "pierced", "needle"} <= {c.id for c in both.cautions}
    rare = read_coat(Seasoned("A", dataclasses.replace(JOINT, endpoint_c=57.0), (again,)), cored=False)
    assert rare.cautions[0].id == "not-intact"
    assert rare.cautions[0].level == "stop"
    whole = read_coat(Seasoned("A", dataclasses.replace(JOINT, endpoint_c=57.0), ()), cored=False)
    assert {"below-minimum"} == {c.id for c in whole.cautions} & {"below-minimum", "not-intact"}


def test_an_injection_mid_cook_is_weighed_against_what_has_lost_weight_by_then():
    def mid_cook(**plan):
        layer = Layer("second injection", STOCK, 3, injection=Injection(**plan))
        return read_coat(Seasoned("A", JOINT, (layer,)), cored=False).layers[0].injection

    with pytest.raises(BadInput, match="lost weight") as refusal:
        mid_cook(after_g=1700)
    assert refusal.value.argument == "layers.0.injection.before"
    # by hand: 48 g on 1,650 is 2.91 %, of the 85.7 g planned 56 %
    found = mid_cook(before_g=1650, after_g=1698)
    assert found.pump.value == pytest.approx(48 / 1650 * 100)
    assert found.stays.value == pytest.approx(48 / (60 / 0.7) * 100)


# USDA handbook and 9 CFR 424.21, from memory: ingoing ppm = nitrite in the pickle x pump, dry = nitrite on / meat
def test_curing_salt_is_counted_only_to_refuse():
    pickle = blend(("water/liquid", 970, "scale"), ("curing-salt/fine", 30, "scale"), kind="injection")
    layer = Layer("injection", pickle, 10, HOUR, 4.0, 1.0)
    found = read_coat(Seasoned("A", JOINT, (layer,)), cored=False)
    said = next(c.sentence for c in found.cautions if c.id == "cure")
    assert "187 mg of sodium nitrite" in said or "188 mg of sodium nitrite" in said  # by hand: 187.5
    for refused in (
        Seasoned("A", JOINT, (dataclasses.replace(layer, dose=11),)),
        Seasoned("A", Piece("pork-belly", 2000), (dataclasses.replace(layer, dose=7),)),  # 131 is above a belly's 120
        Seasoned("A", JOINT, (Layer("rub", plain("curing-salt/fine"), 5, HOUR),)),
    ):
        with pytest.raises(BadInput, match="does not formulate cures") as refusal:
            read_coat(refused, cored=False)
        assert refusal.value.argument == "layers.0.dose"


def test_nitrite_of_several_layers_is_taken_together_by_way_of_curing():
    pickle = read_blend(blend(("water/liquid", 97, "scale"), ("curing-salt/fine", 3, "scale"), kind="injection"))

    class Put:
        def __init__(self, kind, dose_g):
            self.layer, self.blend, self.dose_g = Layer(kind, None, 1), pickle, dose_g

    one = Put("injection", 120)
    assert nitrite_mg_kg(one, 1.0, 1000) == pytest.approx(225)
    assert nitrite_of([Put("injection", 60)], [1.0], 1000, "x") == [pytest.approx(112.5)]
    with pytest.raises(BadInput) as refusal:
        nitrite_of([Put("injection", 60), Put("second injection", 60)], [1.0, 1.0], 1000, "x")
    assert refusal.value.argument == "layers.1.dose"
    assert len(nitrite_of([Put("injection", 60), Put("rub", 60)], [1.0, 1.0], 1000, "x")) == 2


def test_phosphate_above_half_a_percent_stops():
    for share, stops in ((5, True), (4, False)):
        liquid = blend(("water/liquid", 100 - share, "scale"), ("phosphate/fine", share, "scale"), kind="injection")
        found = read(blend=liquid, dose=11)
        assert ("phosphate" in {c.id for c in found.cautions}) is stops


@pytest.mark.parametrize(
    ("piece", "plan", "dose", "field"),
    [
        (JOINT, {}, 80, "layers.0.dose"),
        (JOINT, {"spacing_cm": 0}, 10, "layers.0.injection.spacing"),
        (Piece("beef-brisket", 6000), {"spacing_cm": 0.9}, 10, "layers.0.injection.spacing"),
        (JOINT, {"grid": "spiral"}, 10, "layers.0.injection.grid"),
        (JOINT, {"after_g": 1950}, 10, "layers.0.injection.after"),
        (JOINT, {"after_g": 2000}, 10, "layers.0.injection.after"),
        (JOINT, {"after_g": 2900}, 10, "layers.0.injection.after"),
        (JOINT, {"after_g": 2300}, 10, "layers.0.injection.used"),
        (JOINT, {"bore_mm": 0.01}, 10, "layers.0.injection.bore"),
        (JOINT, {"syringe_ml": 0}, 10, "layers.0.injection.syringe"),
        (JOINT, {"stroke_ml": 0}, 10, "layers.0.injection.stroke"),
        (JOINT, {"wants_percent": 30}, 10, "layers.0.injection.wants"),
        (dataclasses.replace(JOINT, endpoint_c=20), {}, 10, "piece.endpoint_c"),
        (dataclasses.replace(JOINT, bones=(Bone(0, 0, 2, 1, 0.1),)), {}, 10, "piece.bones"),
        (dataclasses.replace(JOINT, bones=(Bone(0, 0, 1, 1, 0.1),) * 17), {}, 10, "piece.bones"),
        (Piece("lamb-shoulder-boneless", 1500, cut_into="strips", cut_cm=1.5), {}, 10, "layers.0.kind"),
    ],
)
def test_an_injection_that_cannot_be_says_so_at_its_field(piece, plan, dose, field):
    with pytest.raises(BadInput) as refusal:
        read(piece, dose=dose, **plan)
    assert refusal.value.argument == field
    assert refusal.value.sentence.endswith(".")


def test_a_plan_is_read_as_typed_and_refused_at_its_key():
    typed = {
        "wants": "1",
        "spacing": "1 in",
        "bore": "3 mm",
        "syringe": "2 fl oz",
        "after": "4 lb 12 oz",
        "used": "½ cup",
    }
    found = injection_of(typed | {"sites": [[0.2, 0.3]], "grid": "square"})
    assert (found.spacing_cm, found.bore_mm, found.grid, found.sites) == (
        2.54,
        pytest.approx(3),
        "square",
        ((0.2, 0.3),),
    )
    assert found.after_g == pytest.approx(2154.6, abs=0.1)
    assert found.used.unit == "ml"
    assert injection_of({}) == CoreInjection()
    for key, text in {"wants": "lots", "spacing": "0 mm", "bore": "wide", "after": "heavy", "used": "-2 ml"}.items():
        with pytest.raises(BadInput) as refusal:
            injection_of({key: text})
        assert refusal.value.argument == key
