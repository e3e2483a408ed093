"""What must hold on the bench for any blend: reworked, adapted, nudged, judged and compared."""

from fractions import Fraction

import pytest
from builders import KEYS, lines, nested, parts
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from ravska_core.blend import (
    KINDS,
    MOST_LINES,
    QUALITIES,
    Blend,
    Line,
    Ratio,
    add_line,
    findings_of,
    masses,
    move_border,
    nudge_parts,
    parts_of,
    read_blend,
    remove_line,
    restate,
    say_parts,
    set_parts,
    shares,
    switch_basis,
    switch_grind,
    write_as,
)
from ravska_core.blend.adapt import MEATS, adapt
from ravska_core.blend.compare import differ
from ravska_core.blend.lines import FIRES
from ravska_core.blend.nudge import NUDGES, nudge
from ravska_core.catalogue import ALLERGENS, catalogue
from ravska_core.cautions import LEVELS
from ravska_core.coat import thin_cut_salt
from ravska_core.measure import HIGHEST_PARTS, LOWEST_PARTS, parse_parts
from ravska_core.working import BadInput


def whole(ratio: Ratio) -> float:
    return sum(masses(ratio.lines, parts_of(ratio.lines)))


def change(draw, ratio: Ratio) -> Ratio:
    """Make one change of a ratio, as a cook would on the bench."""
    at = draw(st.integers(0, len(ratio.lines) - 1))
    do = draw(st.sampled_from(["set", "nudge", "border", "add", "remove", "basis", "lock", "grind"]))
    if do == "set":
        return set_parts(ratio, at, draw(parts))
    if do == "nudge":
        return nudge_parts(ratio, at, draw(st.booleans()))
    if do == "border":
        return move_border(ratio, at, draw(st.floats(0, 1)))
    if do == "add" and len(ratio.lines) < MOST_LINES:
        return add_line(ratio, Line(draw(st.sampled_from(KEYS)), Fraction(1), "scale"))
    if do == "remove" and len(ratio.lines) > 1:
        return remove_line(ratio, at)
    if do == "basis" and ratio.written != "percent":
        return restate(switch_basis(ratio, at, draw(st.sampled_from(["spoon", "scale"]))))
    if do == "grind":
        hold = draw(st.sampled_from(["spoons", "grams"]))
        return restate(switch_grind(ratio, at, draw(st.sampled_from(KEYS)), hold))
    of = ratio.lines[at]
    locked = Line(of.grind, of.parts, of.basis, draw(st.sampled_from(["", "share"])), of.blend)
    return Ratio((*ratio.lines[:at], locked, *ratio.lines[at + 1 :]), ratio.written, ratio.base, ratio.total)


@settings(max_examples=30)
@given(lines(least=2), st.sampled_from(["parts", "percent", "relative"]), st.data())
def test_whatever_is_changed_in_whatever_order_the_ratio_stays_one(of, written, data):
    try:
        ratio = write_as(Ratio(of), written)
    except BadInput:
        assume(False)
    refused = 0
    for _ in range(12):
        held = {i: s for i, s in enumerate(shares(ratio.lines, parts_of(ratio.lines))) if ratio.lines[i].lock}
        try:
            after = change(data.draw, ratio)
        except BadInput:
            refused += 1
            continue  # what is refused leaves everything as it was
        now = shares(after.lines, parts_of(after.lines))
        assert sum(now) == pytest.approx(1)
        assert all(LOWEST_PARTS <= line.parts <= HIGHEST_PARTS for line in after.lines)
        if written == "percent":
            assert float(sum(line.parts for line in after.lines)) == pytest.approx(100, abs=1e-5)
        if written == "relative":
            assert after.lines[after.base].parts == 1
        if len(after.lines) == len(ratio.lines) and held:
            same = [i for i in held if after.lines[i].lock and after.lines[i] == ratio.lines[i]]
            if written == "percent":  # lines that were held and not touched hold their share
                assert [now[i] for i in same] == pytest.approx([held[i] for i in same], abs=1e-6)
        ratio = after
    assert refused < 12


@given(nested() | lines().map(lambda of: Blend("dry rub", of, 100.0)), st.sampled_from(["", *MEATS]),
       st.sampled_from(["", *FIRES]), st.sampled_from(ALLERGENS))  # fmt: skip
def test_an_adapted_blend_can_be_mixed_and_holds_nothing_that_cannot_be_eaten(of, meat, fire, allergen):
    found = adapt(of, meat, fire, without={allergen})
    assert all(c.text and c.reason and c.source in catalogue().sources for c in found.changes)
    assert len({c.id for c in found.changes}) == len(found.changes)
    # skipping all leaves it as it is; what one change would have done may then be due by another
    skip = {c.id for c in found.changes}
    for _ in range(4):
        skip |= {c.id for c in adapt(of, meat, fire, without={allergen}, skip=skip).changes}
    assert adapt(of, meat, fire, without={allergen}, skip=skip).lines == of.lines
    if not found.lines:
        return
    reading = read_blend(Blend(of.kind, found.lines, of.batch_g))
    inside = {
        a
        for line in found.lines
        if line.blend
        for p in parts_of([line])
        for g, _ in p.leaves
        for a in g.ingredient.allergens
    }
    assert allergen in inside or allergen not in reading.allergens
    assert sum(line.share.value for line in reading.lines) == pytest.approx(100)


@given(nested(), st.sampled_from(sorted(NUDGES)))
def test_a_nudge_moves_its_scale_its_way_or_says_why_not(of, towards):
    wish, before = NUDGES[towards], read_blend(of)
    try:
        answer = nudge(of, towards)
    except BadInput:
        assume(False)  # a part would fall out of the range a book holds
    if answer.unchanged:
        assert answer.conflicts
        assert answer.lines == of.lines
        return
    moved = read_blend(Blend(of.kind, answer.lines, 100.0)).scale(wish.what).value - before.scale(wish.what).value
    assert moved < 0 if towards == "less-salt" else moved > 0


@given(nested(), st.sampled_from(KINDS), st.sampled_from(["", *FIRES]))
def test_every_finding_is_a_whole_sentence_with_its_source_most_serious_first(of, kind, fire):
    as_kind = Blend(kind, of.lines, of.batch_g, of.name, fire)
    found = findings_of(as_kind, read_blend(as_kind), thin_cut_salt())
    for caution in found:
        for text in (caution.sentence, caution.action):
            assert text.endswith(".")
            assert "{" not in text
        assert caution.source in catalogue().sources
    levels = [LEVELS.index(caution.level) for caution in found]
    assert levels == sorted(levels)
    assert len({caution.id for caution in found}) == len(found)


@given(nested(), nested())
def test_a_difference_there_is_the_difference_back(a, b):
    there, back = differ(read_blend(a), read_blend(b)), differ(read_blend(b), read_blend(a))
    assert differ(read_blend(a), read_blend(a)).words == ()
    assert {(row.name, row.before, row.after) for row in there.rows} == {(r.name, r.after, r.before) for r in back.rows}
    assert len(there.words) == len(back.words)
    assert sum(row.before or 0 for row in there.rows) == pytest.approx(100)
    assert sum(row.after or 0 for row in there.rows) == pytest.approx(100)


@given(nested())
def test_every_scale_says_its_working_and_no_scale_runs_off_its_end(of):
    reading = read_blend(of)
    assert [scale.key for scale in reading.scales] == [*QUALITIES, "spread"]
    for scale in reading.scales:
        assert scale.figure.steps[-1].value == scale.figure.value
        assert 0 <= scale.value <= scale.full or scale.key == "spread"
        assert scale.figure.low <= scale.figure.value <= scale.figure.high
        assert all(step.source in catalogue().sources for step in scale.figure.steps)
        if scale.unit == "%":
            assert scale.value <= 100 + 1e-9
    assert reading.keeping.days >= 1
    assert reading.keeping.figure.value == reading.keeping.days
    assert all(step.source in catalogue().sources for step in reading.keeping.figure.steps)


@given(st.fractions(Fraction(1, 1000), 10_000))
def test_parts_said_are_read_back_to_three_figures(amount):
    said = parse_parts(say_parts(amount))
    assert float(said) == pytest.approx(float(amount), rel=6e-3)
