"""What must hold for any blend, any piece and any hold: property tests of the coat and the schedule."""

import math
from datetime import UTC, datetime, timedelta
from fractions import Fraction

import pytest
from builders import blend
from crank import sheet_uptake
from hypothesis import assume, given
from hypothesis import strategies as st
from ravska_core.blend import Blend, Line, read_blend
from ravska_core.bowl import batch_for_dose_g
from ravska_core.catalogue import catalogue
from ravska_core.catalogue.rows import ACID_CLASSES, MEAT_CLASSES
from ravska_core.coat import (
    ADHESION_CEILING,
    LAYER_KINDS,
    ON_THE_FIRE,
    STEP_KINDS,
    VESSELS,
    Layer,
    Planned,
    Seasoned,
    hold_window,
    plain,
    read_coat,
    usual_steps,
)
from ravska_core.coat.doses import MELTED_CLINGS
from ravska_core.day import count_back
from ravska_core.diffusion import diffusivity_m2_s
from ravska_core.measure import parse_duration_s, parse_mass_g, parse_parts
from ravska_core.meat import Piece, read_piece
from ravska_core.meat.pieces import Measures
from ravska_core.units import say_duration

HOUR = 3600.0
KEYS = sorted(key for key, row in catalogue().grinds.items() if "cure" not in row.ingredient.flags)

cuts = st.sampled_from(sorted(catalogue().cuts))
masses = st.floats(100, 8000)
coats = st.floats(0.5, 15)
surfaces = st.sampled_from(["dry", "moist"])
holds = st.floats(5 * 60, 48 * HOUR)


@st.composite
def mixtures(draw, kind: str = "dry rub", wet: bool = False):
    keys = draw(st.lists(st.sampled_from(KEYS), min_size=1, max_size=10, unique=True))
    if wet:
        keys = ["water/liquid", *[key for key in keys if key != "water/liquid"]]
    parts = st.fractions(Fraction(1, 8), 12, max_denominator=8)
    lines = [Line(key, draw(parts), draw(st.sampled_from(["spoon", "scale"]))) for key in keys]
    if wet:
        lines[0] = Line("water/liquid", Fraction(20), "spoon")
    return Blend(kind, tuple(lines), 200.0)


@given(mixtures(), cuts, masses, coats, surfaces)
def test_salt_of_a_rub_never_exceeds_what_was_put_on(rub, cut, mass_g, coat, surface):
    found = read_coat(Seasoned("A", Piece(cut, mass_g, surface=surface), (Layer("rub", rub, coat, HOUR),)))
    (layer,) = found.layers
    put_on = layer.dose.value * read_blend(rub).salt.value / 100
    assert found.salt.value / 100 * found.piece.edible.value <= put_on + 1e-9
    assert layer.dose.value == pytest.approx(coat * found.piece.coatable.value / 100)
    assert found.salt.low <= found.salt.value <= found.salt.high


@given(mixtures(), cuts, masses, surfaces, st.floats(1.05, 3))
def test_more_rub_is_never_less_salt_and_beyond_the_ceiling_no_more(rub, cut, mass_g, surface, times):
    def salt(coat: float) -> float:
        piece = Piece(cut, mass_g, surface=surface)
        return read_coat(Seasoned("A", piece, (Layer("rub", rub, coat, HOUR),))).salt.value

    ceiling = ADHESION_CEILING[surface]
    assert salt(ceiling / times) <= salt(ceiling) + 1e-12
    assert salt(min(40.0, ceiling * times)) == pytest.approx(salt(ceiling))


@given(mixtures("marinade", wet=True), cuts, masses, holds, st.sampled_from(sorted(VESSELS.values())))
def test_a_bath_never_gives_more_than_its_balance_and_longer_never_less(bath, cut, mass_g, hold_s, ml_kg):
    def salt(seconds: float):
        layer = Layer("marinade", bath, ml_kg, seconds, after="rinsed")
        return read_coat(Seasoned("A", Piece(cut, mass_g), (layer,))).salt

    balance = read_blend(bath).salt.high * 0.745
    found = salt(hold_s)
    assert -1e-12 <= found.low <= found.value <= found.high <= balance * (1 + 1e-9)
    assert salt(hold_s * 2).value >= found.value * (1 - 1e-9)
    assert salt(hold_s * 2).value <= found.value * math.sqrt(2) * 1.01  # early on, uptake goes with the root of time


@given(st.floats(0, 5), st.floats(0, 5))
def test_uptake_only_grows_and_never_passes_the_whole(a, b):
    assert 0 <= sheet_uptake(min(a, b)) <= sheet_uptake(max(a, b)) <= 1


def test_cold_slows_salt_by_a_fifth_from_twelve_degrees_to_four():
    # 20 kJ/mol: exp(-20000/8.314 (1/277.15 - 1/285.15)) = 0.784
    assert diffusivity_m2_s(4) / diffusivity_m2_s(12) == pytest.approx(0.784, abs=0.001)
    assert diffusivity_m2_s(4) == pytest.approx(2.5e-10)


@given(cuts, masses, st.integers(2, 12))
def test_many_small_pieces_have_more_surface_than_one(cut, mass_g, count):
    one, many = read_piece(Piece(cut, mass_g)), read_piece(Piece(cut, mass_g, count=count))
    if catalogue().cuts[cut].unit_cm is not None:
        assert many.solid.area_cm2 == pytest.approx(one.solid.area_cm2)  # cubes are cubes, however many are bought
    elif catalogue().cuts[cut].shape == "bird":
        assert many.solid.area_cm2 / one.solid.area_cm2 == pytest.approx(count ** (1 - 0.705))
    else:
        assert many.solid.area_cm2 / one.solid.area_cm2 == pytest.approx(count ** (1 / 3))
    assert many.edible.value == pytest.approx(one.edible.value)


@given(cuts, masses)
def test_measuring_a_piece_as_it_was_taken_to_be_changes_nothing_but_the_error(cut, mass_g):
    row = catalogue().cuts[cut]
    assume(row.shape != "bird" and row.unit_cm is None)
    guessed = read_piece(Piece(cut, mass_g))
    solid = guessed.solid
    sizes = (solid.length_cm, solid.width_cm, solid.thickness_cm)
    assume(all(0.2 <= size <= 200 for size in sizes))
    measured = read_piece(Piece(cut, mass_g, measures=Measures(*sizes)))
    assert measured.coatable.value == pytest.approx(guessed.coatable.value)
    assert measured.question == ""
    assert measured.coatable.high < guessed.coatable.high


@given(cuts, masses)
def test_a_face_left_bare_and_the_rest_make_the_whole(cut, mass_g):
    names = [name for name, _ in catalogue().cuts[cut].faces]
    bare = read_piece(Piece(cut, mass_g, faces=dict.fromkeys(names, "bare")))
    whole = read_piece(Piece(cut, mass_g, faces=dict.fromkeys(names, "coated")))
    hidden = sum(face.area_cm2 for face in bare.faces)
    assert bare.coatable.value + hidden == pytest.approx(whole.coatable.value)
    assert bare.open_cm2 == pytest.approx(whole.open_cm2)
    assert 0 <= hidden < whole.coatable.value


@given(mixtures(), cuts, masses, st.floats(0.05, 2))
def test_layers_add_and_every_figure_shows_how(rub, cut, mass_g, percent):
    layers = (Layer("pre-salt", plain("table-salt/fine"), percent, HOUR), Layer("rub", rub, 5, HOUR))
    found = read_coat(Seasoned("A", Piece(cut, mass_g), layers))
    assert found.salt.value == pytest.approx(sum(layer.salt.value for layer in found.layers))
    for figure in (found.salt, found.piece.coatable, found.piece.edible, *[layer.dose for layer in found.layers]):
        assert figure.steps[-1].value == pytest.approx(figure.value)
        assert all(step.source in catalogue().sources for step in figure.steps)


@given(st.floats(0.01, 5000))
def test_a_batch_covers_its_dose_by_less_than_a_gram(dose_g):
    assert -0.001 <= batch_for_dose_g(dose_g) - dose_g < 1.001


@given(mixtures("marinade", wet=True), st.sampled_from(MEAT_CLASSES))
def test_every_marinade_has_a_window_with_schools_in_order(bath, meat):
    found = hold_window(read_blend(bath), meat, "medium")
    window = found.limits
    assert found.acid_class in ACID_CLASSES
    assert window.cautious_low_min <= window.cautious_high_min <= window.long_low_min <= window.long_high_min <= 1440


def test_diluting_a_marinade_never_makes_it_stronger():
    order = ["none", "mild", "medium", "strong"]
    classes = [
        hold_window(
            read_blend(blend(("cider-vinegar/liquid", 1, "spoon"), ("water/liquid", n, "spoon"))), "tough", "medium"
        )
        for n in (1, 2, 4, 8, 20, 200)
    ]
    strengths = [order.index(found.acid_class) for found in classes]
    assert strengths == sorted(strengths, reverse=True)
    assert len(set(strengths)) == 4


@given(st.lists(st.tuples(st.sampled_from(STEP_KINDS), st.floats(0, 86_400)), min_size=1, max_size=9))
def test_steps_follow_each_other_without_a_gap_and_end_at_serving(steps):
    serve = datetime(2027, 6, 12, 18, 30, tzinfo=UTC)
    planned = [Planned(kind, lasts) for kind, lasts in steps if kind not in ON_THE_FIRE] or [Planned("plate", 0.0)]
    times = count_back(serve, planned)
    ends = [at + timedelta(seconds=step.lasts_s) for (at, _), step in zip(times, planned, strict=True)]
    for end, (begins, _) in zip(ends, [*times[1:], (serve, None)], strict=True):
        assert abs((end - begins).total_seconds()) < 1e-3
    assert times[0][1].value == pytest.approx(sum(step.lasts_s for step in planned))


@given(st.lists(st.sampled_from(sorted(LAYER_KINDS)), max_size=6))
def test_any_stack_of_layers_ends_on_the_plate(kinds):
    rub = Blend("dry rub", (Line(KEYS[0], Fraction(1), "spoon"), Line(KEYS[1], Fraction(1), "spoon")), 10.0)
    steps = usual_steps([Layer(kind, rub, 1.0, HOUR) for kind in kinds], HOUR, HOUR)
    assert [step.kind for step in steps if step.kind != "pass"][-1] == "plate"
    assert [step.kind for step in steps if step.kind in ("on", "rest", "plate")] == ["on", "rest", "plate"]
    assert sum(step.kind == "mix" for step in steps) == bool(kinds)
    assert sorted(step.layer for step in steps if step.layer is not None) == list(range(len(kinds)))
    when = {step.layer: steps.index(step) for step in steps if step.layer is not None}
    on, rest = (next(n for n, step in enumerate(steps) if step.kind == kind) for kind in ("on", "rest"))
    for at, kind in enumerate(kinds):
        place = {"before": when[at] < on, "during": on < when[at] < rest, "after": rest < when[at]}
        assert place[LAYER_KINDS[kind].when]


@given(st.fractions(Fraction(1, 64), 500, max_denominator=64))
def test_parts_written_out_are_read_back(parts):
    whole, rest = divmod(parts, 1)
    text = f"{whole} {rest.numerator}/{rest.denominator}" if whole and rest else str(parts)
    assert parse_parts(text) == parts


@given(st.integers(0, 60), st.integers(0, 15))
def test_pounds_and_ounces_are_read_back(pounds, ounces):
    assume(pounds or ounces)
    assert parse_mass_g(f"{pounds} lb {ounces} oz") == pytest.approx(453.59237 * (pounds + ounces / 16))


@given(st.integers(1, 10_000))
def test_times_said_are_read_back(minutes):
    assert parse_duration_s(say_duration(minutes * 60)) == minutes * 60


def test_of_a_melting_coat_only_so_much_clings_however_much_goes_on():
    butter = Blend("dry rub", (Line("butter-salted/melted", Fraction(1), "scale"),), 100.0)

    def salt(coat: float) -> float:
        return read_coat(Seasoned("A", Piece("lamb-leg", 2000), (Layer("rub", butter, coat, HOUR),))).salt.value

    # half as much as clings is all there; twice as much, and beyond what sticks at all, is what clings and no more
    assert salt(MELTED_CLINGS / 2) == pytest.approx(salt(MELTED_CLINGS) / 2)
    assert salt(2 * MELTED_CLINGS) == pytest.approx(salt(MELTED_CLINGS))
    assert salt(40) == pytest.approx(salt(MELTED_CLINGS))
