"""Questions that take seconds: each has a key of its own, by which it can be let go before it is answered."""

from collections import OrderedDict
from collections.abc import Callable
from threading import Event, Lock
from uuid import UUID

_MOST = 64
"""So many keys are kept in mind: a question is forgotten when as many others were asked after it."""

_asked: OrderedDict[UUID, Event] = OrderedDict()
_one_at_a_time = Lock()


class LetGo(Exception):  # noqa: N818 - nobody is at fault
    """A question was let go before it was answered."""


def _of(key: UUID) -> Event:
    with _one_at_a_time:
        found = _asked.setdefault(key, Event())
        while len(_asked) > _MOST:
            _asked.popitem(last=False)
        return found


def let_go(key: UUID) -> None:
    """Let the question of that key go, also where that arrives before the question does."""
    _of(key).set()


def going(key: UUID | None) -> Callable[[], None]:
    """Return what a long answer calls now and then.

    Raises
    ------
    LetGo
        When called after its question was let go.
    """
    gone = Event() if key is None else _of(key)

    def go_on() -> None:
        if gone.is_set():
            raise LetGo

    return go_on
