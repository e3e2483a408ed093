"""How a noun's routes answer: what a view says it returns is the document, and is sent straight as it is."""

from collections.abc import Callable
from dataclasses import dataclass, fields
from functools import cache, wraps
from typing import Any, Generic, TypeVar, get_args, get_origin, get_type_hints

import ninja
from django.http import HttpResponse
from pydantic import TypeAdapter

from api.plumbing.problems import ANSWERS

Document = TypeVar("Document")
Out = TypeVar("Out")
View = TypeVar("View", bound=Callable[..., Any])


@dataclass(frozen=True, slots=True)
class Created(Generic[Document]):
    """A document of something that was made just now."""

    value: Document


def with_more(out: type[Out], found: object, **more: object) -> Out:
    """Return a core result as it is shown, with what the book adds: `out` is a dataclass that extends the result's."""
    shown = {field.name: getattr(found, field.name) for field in fields(out) if field.name not in more}  # type: ignore[arg-type]  # a dataclass
    return out(**shown, **more)


def _sends(view: Callable[..., Any], document: Any) -> Callable[..., HttpResponse]:
    """Send what a view returns as JSON straight from its models.

    The framework would validate and dump every answer once more, which costs more than the computation. How an answer
    is written is worked out when it is first sent, so that the server is there sooner.
    """

    @cache
    def write() -> Callable[[object], bytes]:
        adapter: TypeAdapter[object] = TypeAdapter(document)
        return adapter.dump_json

    @wraps(view)
    def answer(*args: object, **kwargs: object) -> HttpResponse:
        found, status = view(*args, **kwargs), 200
        if isinstance(found, HttpResponse):
            return found
        if isinstance(found, Created):
            found, status = found.value, 201
        return HttpResponse(write()(found), status=status, content_type="application/json")

    return answer


class Router(ninja.Router):
    """The routes of a noun. A view's return type is declared once: it is what the API's document says of it too."""

    def reads(self, path: str) -> Callable[[View], View]:
        """Answer GET at a path."""
        return self._answer("GET", path)

    def posts(self, path: str) -> Callable[[View], View]:
        """Answer POST at a path."""
        return self._answer("POST", path)

    def puts(self, path: str) -> Callable[[View], View]:
        """Answer PUT at a path."""
        return self._answer("PUT", path)

    def _answer(self, method: str, path: str) -> Callable[[View], View]:
        def register(view: View) -> View:
            returns = get_type_hints(view)["return"]
            created = get_origin(returns) is Created
            document = get_args(returns)[0] if created else str if returns is HttpResponse else returns
            response = {201 if created else 200: document, **ANSWERS}
            self.add_api_operation(path, [method], _sends(view, document), response=response)
            return view

        return register
