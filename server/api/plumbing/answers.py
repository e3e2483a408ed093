"""How a noun's routes answer: what a view says it returns is the document, and is sent straight as it is."""

from collections.abc import Callable
from dataclasses import dataclass, fields
from functools import cache, wraps
from hashlib import sha256
from typing import Any, Generic, TypeVar, get_args, get_origin, get_type_hints
from uuid import UUID

import ninja
from book.answered import Answer, answer_to, remember
from book.own import take_what_is_own
from book.snapshot import one_version
from django.db import transaction
from django.http import HttpRequest, HttpResponse
from ninja.errors import HttpError
from pydantic import TypeAdapter

from api.plumbing.household import FirstUse, household
from api.plumbing.problems import ANSWERS

Document = TypeVar("Document")
Out = TypeVar("Out")
View = TypeVar("View", bound=Callable[..., Any])
Answering = Callable[..., HttpResponse]


@dataclass(frozen=True, slots=True)
class Created(Generic[Document]):
    """A document of something that was made just now."""

    value: Document


def with_more(out: type[Out], found: object, **more: object) -> Out:
    """Return a core result as it is shown, with what the book adds: `out` is a dataclass that extends the result's."""
    shown = {field.name: getattr(found, field.name) for field in fields(out) if field.name not in more}  # type: ignore[arg-type]  # a dataclass
    return out(**shown, **more)


def _sends(view: Callable[..., Any], document: Any) -> Answering:
    """Send what a view returns as JSON straight from its models.

    The framework would validate and dump every answer once more, which costs more than the computation. How an answer
    is written is worked out when it is first sent, so that the server is there sooner.
    """

    @cache
    def write() -> Callable[[object], bytes]:
        adapter: TypeAdapter[object] = TypeAdapter(document)
        return adapter.dump_json

    @wraps(view)
    def answer(request: HttpRequest, *args: object, **kwargs: object) -> HttpResponse:
        found, status = view(request, *args, **kwargs), 200
        if isinstance(found, HttpResponse):
            return found
        if isinstance(found, Created):
            found, status = found.value, 201
        return HttpResponse(write()(found), status=status, content_type="application/json")

    return answer


def _of_one_version(answer: Answering) -> Answering:
    """Answer a question by the book as it was at one moment."""

    @wraps(answer)
    def asked(request: HttpRequest, *args: object, **kwargs: object) -> HttpResponse:
        try:
            with one_version():
                take_what_is_own()
                return answer(request, *args, **kwargs)
        except FirstUse:
            household()
        with one_version():
            take_what_is_own()
            return answer(request, *args, **kwargs)

    return asked


def _key_of(request: HttpRequest) -> UUID | None:
    """Return the key a write was sent under, the standard header's; None when it came without."""
    sent = request.headers.get("Idempotency-Key", "")
    try:
        return UUID(sent.strip('"')) if sent else None
    except ValueError:
        raise HttpError(422, "The Idempotency-Key of a write is a UUID of its own; make one for each.") from None


def _once(answer: Answering) -> Answering:
    """Do a write with its answer in one transaction; sent again under its key, it is answered as it was."""

    @wraps(answer)
    def written(request: HttpRequest, *args: object, **kwargs: object) -> HttpResponse:
        key = _key_of(request)
        take_what_is_own()
        with transaction.atomic():
            if key is None:
                return answer(request, *args, **kwargs)
            asked, digest = f"{request.method} {request.path}", sha256(request.body).hexdigest()
            before = answer_to(key, asked, digest)
            if before is not None:
                return HttpResponse(before.document, status=before.status, content_type="application/json")
            found = answer(request, *args, **kwargs)
            remember(key, asked, digest, Answer(found.status_code, found.content))
            return found

    return written


class Router(ninja.Router):
    """The routes of a noun. A view's return type is declared once: it is what the API's document says of it too."""

    def reads(self, path: str) -> Callable[[View], View]:
        """Answer GET at a path."""
        return self._answer("GET", path, _of_one_version)

    def asks(self, path: str) -> Callable[[View], View]:
        """Answer a POST that only asks: nothing is saved."""
        return self._answer("POST", path, _of_one_version)

    def hears(self, path: str) -> Callable[[View], View]:
        """Answer a POST that the book has no part in: of or to a device, or about another question."""
        return self._answer("POST", path, lambda answer: answer)

    def posts(self, path: str) -> Callable[[View], View]:
        """Do what is sent by POST, once."""
        return self._answer("POST", path, _once)

    def puts(self, path: str) -> Callable[[View], View]:
        """Save what is sent by PUT, once."""
        return self._answer("PUT", path, _once)

    def _answer(self, method: str, path: str, how: Callable[[Answering], Answering]) -> Callable[[View], View]:
        def register(view: View) -> View:
            returns = get_type_hints(view)["return"]
            created = get_origin(returns) is Created
            document = get_args(returns)[0] if created else str if returns is HttpResponse else returns
            response = {201 if created else 200: document, **ANSWERS}
            self.add_api_operation(path, [method], how(_sends(view, document)), response=response)
            return view

        return register
