"""The day of a cook, counted back from serving."""

from ravska_core.day.schedule import count_back

__all__ = [
    "count_back",
]
