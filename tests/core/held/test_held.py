"""Every number the core makes of a large battery of cases stays where it is held."""

import pytest
from battery import held, moved, outcome
from cases import SUBJECTS


@pytest.mark.parametrize("subject", SUBJECTS)
def test_what_is_held_has_not_moved(subject):
    was = held(subject)
    now = dict(SUBJECTS[subject]())
    assert now.keys() == was.keys()
    found = [f"{name}{change}" for name, case in now.items() for change in moved(was[name], outcome(case))]
    assert not found, f"{len(found)} moved, first of them: " + "; ".join(found[:8])
