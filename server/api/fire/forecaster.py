"""The one process that forecasts: begun when it is first needed, ended with the server, begun anew when it dies."""

import logging
import threading
from collections.abc import Callable
from concurrent.futures import Future, ProcessPoolExecutor
from concurrent.futures.process import BrokenProcessPool
from dataclasses import dataclass, field, replace
from datetime import datetime
from multiprocessing import get_context
from multiprocessing.connection import wait
from multiprocessing.process import parent_process
from os import _exit
from time import monotonic
from uuid import UUID

from ravska_core.fire import Dip, Told, tell, without_more
from ravska_core.heat import Kitchen, Live, Phase, take_kitchen
from ravska_core.working import BadInput

log = logging.getLogger("ravska")

EVERY_S, MORE_EVERY_S = 2.0, 20.0
"""How often a piece is forecast at most, and how often with what goes beside it [s]."""

_REMEMBERED = 64


def _end_with_parent() -> None:
    """End as soon as the server does, however it does."""
    parent = parent_process()
    if parent is not None:

        def watch() -> None:
            wait([parent.sentinel])
            _exit(0)

        threading.Thread(target=watch, daemon=True).start()


def _tell(
    kitchen: Kitchen, live: Live, dips: tuple[Dip, ...], begin: tuple[float, ...], rest: Phase | None, more: bool
) -> Told | None:
    take_kitchen(kitchen)
    try:
        return tell(live, dips, begin, rest, more)
    except BadInput:
        return None


@dataclass
class _Known:
    """What was last told of a piece, and what is being asked of it."""

    at: datetime | None = None
    told: Told | None = None
    seen: tuple[object, ...] = ()
    asked: float = 0.0
    asked_more: float = field(default=-MORE_EVERY_S)
    pending: Future[Told | None] | None = None


class Forecaster:
    """Asks the process for forecasts, each piece one at a time, and remembers the last one of each."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._pool: ProcessPoolExecutor | None = None
        self._known: dict[tuple[UUID, str], _Known] = {}

    def latest(self, cook: UUID, letter: str) -> tuple[datetime, Told] | None:
        """Return what was last told of a piece, and when by its cook's clock."""
        found = self._known.get((cook, letter))
        return None if found is None or found.at is None or found.told is None else (found.at, found.told)

    def want(
        self, cook: UUID, letter: str, now: datetime, seen: tuple[object, ...], kitchen: Kitchen,
        live: Callable[[], tuple[Live, tuple[Dip, ...], Phase | None] | None],
    ) -> None:  # fmt: skip
        """Have a piece forecast anew where more was `seen` of it; it is answered later."""
        with self._lock:
            one = self._known.setdefault((cook, letter), _Known())
            while len(self._known) > _REMEMBERED:
                self._known.pop(next(iter(self._known)))
            clock = monotonic()
            if one.pending is not None or clock - one.asked < EVERY_S or seen == one.seen:
                return
            made = live()
            if made is None:
                return
            more = clock - one.asked_more >= MORE_EVERY_S
            begin = one.told.forecast.numbers if one.told is not None else ()
            one.asked, one.seen = clock, seen
            one.asked_more = clock if more else one.asked_more
            try:
                # a view of a mapping cannot be sent to another process
                there = replace(kitchen, cookers=dict(kitchen.cookers))
                one.pending = self._process().submit(_tell, there, made[0], made[1], begin, made[2], more)
            except (BrokenProcessPool, RuntimeError):
                self._begin_anew(one)
                return
            pending = one.pending
        pending.add_done_callback(lambda answer: self._answered(one, now, answer))

    def _process(self) -> ProcessPoolExecutor:
        if self._pool is None:
            self._pool = ProcessPoolExecutor(1, get_context("spawn"), initializer=_end_with_parent)
        return self._pool

    def _begin_anew(self, one: _Known) -> None:
        log.warning("the forecaster has died; it is begun anew")
        if self._pool is not None:
            self._pool.shutdown(wait=False, cancel_futures=True)
        self._pool, one.pending, one.seen = None, None, ()

    def _answered(self, one: _Known, now: datetime, answer: Future[Told | None]) -> None:
        with self._lock:
            one.pending = None
            try:
                told = answer.result()
            except BrokenProcessPool:
                self._begin_anew(one)
            except Exception:
                log.exception("a piece could not be forecast")
            else:
                if told is not None:
                    one.at, one.told = now, without_more(told, one.told)

    def forget(self) -> None:
        """Let go all that was told, and the process."""
        with self._lock:
            if self._pool is not None:
                self._pool.shutdown(wait=False, cancel_futures=True)
            self._pool = None
            self._known.clear()


forecaster = Forecaster()
