"""How answers are sent: straight from what a view returns, by its type."""

from collections.abc import Callable
from functools import cache, wraps
from typing import Any, get_type_hints

from django.http import HttpResponse
from ninja import Status
from pydantic import TypeAdapter
from pydantic_core import to_json


def sends(view: Callable[..., Any]) -> Callable[..., HttpResponse]:
    """Send what a view returns as JSON straight from its models, by the type it says it returns.

    The framework would validate and dump every answer once more, which costs more than the computation. How an answer
    is written is worked out when it is first sent, so that the server is there sooner.
    """

    @cache
    def writer() -> Callable[[Any], bytes]:
        returns = get_type_hints(view).get("return")
        return TypeAdapter(returns).dump_json if returns else to_json

    @wraps(view)
    def answer(*args: Any, **kwargs: Any) -> HttpResponse:
        found, status = view(*args, **kwargs), 200
        if isinstance(found, Status):
            found, status = found.value, found.status_code
        return HttpResponse(writer()(found), status=status, content_type="application/json")

    return answer
