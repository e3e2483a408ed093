"""What is remembered for as long as the catalogue stands as it is: all of it is forgotten when own things change."""

from collections.abc import Callable
from functools import lru_cache
from typing import Any, TypeVar, cast

Find = TypeVar("Find", bound=Callable[..., Any])

_forgetters: list[Callable[[], None]] = []


def while_it_stands(maxsize: int | None = 512) -> Callable[[Find], Find]:
    """Remember what a function found, as `functools.lru_cache`, until the catalogue changes."""

    def remembering(find: Find) -> Find:
        kept = lru_cache(maxsize=maxsize)(find)
        _forgetters.append(kept.cache_clear)
        return cast(Find, kept)

    return remembering


def forget_all() -> None:
    """Forget all that was found by a catalogue that has changed."""
    for forget in _forgetters:
        forget()
