"""What was kept reads the same whatever the tables say later, and the correction is said beside it."""

from dataclasses import replace

import pytest
from builders import blend
from ravska_core.blend import MethodStep, as_read, by_todays_tables, corrections, read_blend
from ravska_core.catalogue import catalogue, grind_as_known, known_of

PEPPER = "black-pepper/cracked"


def kept(of, **other):
    """The blend as it would be kept, the tables having said something else of its grinds then."""
    lines = []
    for line, read in zip(of.lines, as_read(of), strict=True):
        known = tuple((name, other.get(name.replace(".", "_"), value)) for name, value in read.known)
        inside = kept(line.blend, **other) if line.blend is not None else None
        lines.append(replace(line, known=known, blend=inside))
    return replace(of, lines=tuple(lines))


def test_a_line_records_its_mass_and_what_was_known_of_it():
    rub = blend(("table-salt/fine", 2, "spoon"), (PEPPER, 1, "spoon"))
    salt, pepper = as_read(rub)
    tables = catalogue().grinds
    dense, light = tables["table-salt/fine"].density_g_ml, tables[PEPPER].density_g_ml
    assert salt.mass_g == pytest.approx(100 * 2 * dense / (2 * dense + light))
    assert salt.mass_g + pepper.mass_g == pytest.approx(100)
    known = dict(pepper.known)
    assert known["grind.density_g_ml"] == light
    assert known["nacl"] == tables[PEPPER].ingredient.nacl


@pytest.mark.parametrize("key", sorted(catalogue().grinds)[::23])
def test_every_grind_comes_back_from_what_is_known_of_it(key):
    grind = catalogue().grinds[key]
    assert grind_as_known(key, known_of(grind)) is grind
    other = tuple((name, 0.5 if name == "grind.density_g_ml" else value) for name, value in known_of(grind))
    own = grind_as_known(key, other)
    assert own.density_g_ml == 0.5
    assert own.ingredient.flags == grind.ingredient.flags
    assert known_of(own) == other


def test_what_the_tables_still_say_is_read_as_if_nothing_had_been_kept():
    inner = blend(("table-salt/fine", 2, "spoon"), (PEPPER, 1, "spoon"), name="inner")
    rub = blend((inner, 2, "spoon"), ("paprika/powder", 3, "spoon"))
    assert corrections(kept(rub), read_blend(kept(rub))) is None
    assert read_blend(kept(rub)).salt.value == pytest.approx(read_blend(rub).salt.value, rel=1e-12)


def test_a_kept_blend_reads_by_the_density_and_the_salt_that_were_known_then():
    rub = blend(("table-salt/fine", 2, "spoon"), (PEPPER, 1, "spoon"))
    then = kept(rub, grind_density_g_ml=1.0)
    # by hand: all at 1 g/ml, two parts of three are the table's salt
    salt = catalogue().grinds["table-salt/fine"].ingredient.nacl
    pepper = catalogue().grinds[PEPPER].ingredient.nacl
    assert read_blend(then).salt.value == pytest.approx((2 * salt + pepper) / 3 * 100)
    assert read_blend(by_todays_tables(then)) == read_blend(rub)
    found = corrections(then, read_blend(then))
    assert found.tables[0].startswith("table salt, fine: density 1 → ")
    assert found.words.startswith("salt 66 → ")
    unsalted = kept(rub, nacl=0.0)
    assert read_blend(unsalted).salt.value == 0
    assert "salt 0 → " in corrections(unsalted, read_blend(unsalted)).tables[0]


def test_a_blend_inside_keeps_its_density_and_what_it_holds():
    inner = blend(("table-salt/fine", 1, "scale"), name="inner")
    rub = blend((inner, 1, "spoon"), ("paprika/powder", 1, "scale"))
    then = kept(rub)
    heavier = replace(then, lines=(replace(then.lines[0], known=(("density_g_ml", 3.0),)), then.lines[1]))
    assert read_blend(heavier).lines[0].share.value == pytest.approx(75)


def test_what_left_the_tables_is_still_read_and_said_to_have_gone():
    rub = blend((PEPPER, 1, "scale"))
    gone = replace(rub, lines=(replace(rub.lines[0], grind="gone/ground", known=as_read(rub)[0].known),))
    reading = read_blend(gone)
    assert reading.scale("heat").value == pytest.approx(read_blend(rub).scale("heat").value)
    found = corrections(gone, reading)
    assert found.tables[0].endswith("not in the tables any more")
    assert found.words == "it cannot be read by today's tables"


def test_what_is_ground_finer_later_is_still_of_what_was_known():
    rub = replace(blend((PEPPER, 1, "scale")), method=(MethodStep("grind", to="ground"),))
    then = kept(rub, bite=0.0)
    assert read_blend(rub).scale("heat").value > 0
    assert read_blend(then).scale("heat").value == 0
