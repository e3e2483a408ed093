"""Serving: how long plates may wait after the fire, and how to let all of them wait alike."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime, timedelta

from ravska_core.trial.confounds import PLATE_S

WARM_FOR_S = 20 * 60.0
"""How long a sliced portion stays warm enough to compare [s] (common practice, no source)."""


@dataclass(frozen=True)
class Waiting:
    """How long plates may wait. `first_off` is when the first came off the fire, `until` when the plates should be on
    the table."""

    first_off: datetime | None
    until: datetime | None
    says: str


def serve_within(off: Mapping[str, datetime | None], letters: int) -> Waiting:
    """Determine until when plates go out, from when the samples came off the fire, by letter.

    All are plated by the last one's time: one that came off earlier is held, whole and covered, until the last is as
    long off. Where they came off further apart than the plates may differ, that is said.
    """
    known = {letter: at for letter, at in off.items() if at is not None}
    if not known:
        return Waiting(None, None, "When they come off the fire is not logged yet; keep it at the fire.")
    first, last = min(known.values()), max(known.values())
    until = last + timedelta(seconds=WARM_FOR_S)
    if len(known) < letters:
        says = "Not all of them are off the fire yet; keep those that are whole and covered, and slice them together."
    elif (last - first).total_seconds() < PLATE_S:
        says = "They came off together; slice and plate them together."
    else:
        minutes = (last - first).total_seconds() / 60
        says = (
            f"The first came off {minutes:.0f} min before the last. Slice and plate them together, so that all cool on "
            "the plate alike; its longer rest is kept with the trial."
        )
    return Waiting(first, until, says)
