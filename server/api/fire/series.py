"""Readings of a cook as they are drawn and as they are reckoned with: by probe, thinned for the screen."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime, timedelta

import numpy as np
from book.fires import FAR_AHEAD_S
from book.models import ProbeUse, Reading
from django.db.models import FloatField, Func
from numpy.typing import NDArray
from ravska_core.heat import Seen, by_minute
from tsdownsample import MinMaxDownsampler

Array = NDArray[np.float64]

MOST_POINTS = 2000
"""So many points of a probe are sent at most."""

_THINNER = MinMaxDownsampler()  # type: ignore[no-untyped-call]  # the library says nothing of its types
"""Keeps the lowest and the highest of each stretch."""


@dataclass(frozen=True)
class Span:
    """When a channel of a device measures what: until the next that is said of it, or still."""

    use: ProbeUse
    from_at: datetime
    to_at: datetime
    still: bool = False


def spans_of(uses: list[ProbeUse], begins: datetime, ends: datetime) -> list[Span]:
    """Return what each channel measured, and from when to when; the last that was said of a channel goes on."""
    found = []
    for at, use in enumerate(uses):
        later = [one.from_at for one in uses[at + 1 :] if (one.device_id, one.channel) == (use.device_id, use.channel)]
        to_at = min([*later, ends])
        from_at = max(use.from_at, begins)
        if use.role != "none" and from_at < to_at:
            found.append(Span(use, from_at, to_at, still=not later))
    return found


class _JulianDay(Func):
    """A moment as SQLite counts it [days]: an object for each of a day's readings takes longer than all else."""

    function, output_field = "julianday", FloatField()


def numbers_of(span: Span, after: int = 0) -> Iterable[tuple[int, float, float]]:
    """Return readings of a span in the order of their times: number, s since 1970, and °C; those after a number.

    Of one that still goes on those of a clock that is a little fast are among them: asked for by their number, they
    would not come again.
    """
    until = span.to_at + timedelta(seconds=FAR_AHEAD_S) if span.still else span.to_at
    rows = Reading.objects.filter(
        device=span.use.device_id, channel=span.use.channel, at__gte=span.from_at, at__lte=until, id__gt=after
    ).order_by("at")
    for number, days, celsius in rows.values_list("id", _JulianDay("at"), "celsius"):
        yield number, round((days - _EPOCH_DAYS) * 86_400, 3), celsius


_EPOCH_DAYS = 2_440_587.5
"""1970 began on this Julian day."""


def thinned(times: Array, celsius: Array, most: int = MOST_POINTS) -> tuple[Array, Array]:
    """Return at most so many points, the extremes of each stretch among them, and the first and the last."""
    if len(times) <= most:
        return times, celsius
    kept = _THINNER.downsample(celsius, n_out=most - 2 - (most % 2))
    at = np.unique(np.concatenate(([0], np.asarray(kept, int), [len(times) - 1])))
    return times[at], celsius[at]


def seen_by_minute(times: Array, celsius: Array) -> Seen:
    """Return readings as they are reckoned with: medians of their minutes."""
    middle, read = by_minute(Seen(tuple(times.tolist()), tuple(celsius.tolist())))
    return Seen(tuple(middle.tolist()), tuple(read.tolist()))
