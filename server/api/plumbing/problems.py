"""What goes wrong, as RFC 9457 problem details with sentences at the fields."""

import logging
from collections.abc import Callable, Iterable
from typing import Any, ParamSpec, TypeVar

from book.answered import LongAgo, Reused
from book.condition import watch
from book.models import Stale
from book.tasting import TASTED
from django.core.exceptions import RequestDataTooBig
from django.db import DatabaseError
from django.http import Http404, HttpRequest, HttpResponse
from ninja import NinjaAPI, Schema
from ninja.errors import HttpError, ValidationError
from pydantic import Field
from pydantic_core import to_jsonable_python
from ravska_core.working import BadInput

from api.plumbing.asked import LetGo
from api.plumbing.quantities import Quantity

log = logging.getLogger(__name__)
Found = TypeVar("Found")
Given = ParamSpec("Given")


class FieldError(Schema):
    """A sentence at a field, a dotted path into the document that was sent; `code` says what kind of fault it is."""

    field: str
    sentence: str
    code: str = "invalid"


_DOCUMENT_NAMES = {
    "mass_g": "mass",
    "untrimmed_g": "untrimmed",
    "endpoint_c": "endpoint",
    "thin_cm": "thin",
    "cut_cm": "cut_size",
    "length_cm": "length",
    "width_cm": "width",
    "thickness_cm": "thickness",
    "hold_s": "hold",
    "lasts_s": "hold",
    "hold_c": "hold_at",
}
"""What a document calls the core's arguments where the two differ."""


def document_path(argument: str) -> str:
    """Return where a document holds what the core calls by a name of its own."""
    return ".".join(_DOCUMENT_NAMES.get(step, step) for step in argument.split(".") if step != "measures")


def at_field(refusal: BadInput, place: str = "") -> BadInput:
    """Return a refusal of the core at the field of the document, below `place`: a piece's own fields stand in it."""
    argument = "" if refusal.argument == "piece" else refusal.argument.removeprefix("piece.")
    found = BadInput(document_path(argument), refusal.sentence, refusal.code)
    return found.under(place) if place else found


def field_error(refusal: BadInput) -> FieldError:
    """Return a refusal as it is answered."""
    return FieldError(field=document_path(refusal.argument), sentence=refusal.sentence, code=refusal.code)


class Problem(Schema):
    """An RFC 9457 problem. A 409 carries the book's present document as `theirs`, unless it is that something was
    tasted and so must not change any more; a copy of the cook is the way on then."""

    type: str = "about:blank"
    title: str
    status: int
    detail: str
    errors: list[FieldError] = Field(default_factory=list)
    theirs: dict[str, Any] | None = None


class Refused(Exception):  # noqa: N818 - the input is at fault
    """Several fields of one document cannot be worked with."""

    def __init__(self, errors: Iterable[BadInput]) -> None:
        self.errors = list(errors)
        super().__init__("; ".join(error.sentence for error in self.errors))


class Conflict(Exception):  # noqa: N818 - a state, not a fault
    """The document was changed since the writer read it; carries it as it is now."""

    def __init__(self, theirs: object) -> None:
        self.theirs = theirs
        super().__init__("changed meanwhile")


class Gather:
    """Collects refusals field by field, so that a form shows all of them at once."""

    def __init__(self) -> None:
        self.errors: list[BadInput] = []

    def attempt(
        self, field: str, read: Callable[Given, Found], *given: Given.args, **named: Given.kwargs
    ) -> Found | None:
        """Return what `read` returns of what it is given; on bad input note it under `field` and return None."""
        try:
            return read(*given, **named)
        except BadInput as refusal:
            self.errors.append(at_field(refusal, field))
            return None

    def attempt_or(
        self, field: str, otherwise: Found, read: Callable[Given, Found], *given: Given.args, **named: Given.kwargs
    ) -> Found:
        """Return what `attempt` does, or something to go on with."""
        found = self.attempt(field, read, *given, **named)
        return otherwise if found is None else found

    def value(self, field: str, quantity: Quantity[Found]) -> Found | None:
        """Return what an amount was read as, or note at its field why it cannot be."""
        try:
            return quantity.read(field)
        except BadInput as refusal:
            self.errors.append(refusal)
            return None

    def value_if(self, field: str, quantity: Quantity[Found]) -> Found | None:
        """Return what `value` does of an amount that was typed; nothing of one that was left empty."""
        return self.value(field, quantity) if quantity else None

    def refuse(self, field: str, sentence: str) -> None:
        self.errors.append(BadInput(field, sentence))

    def finish(self) -> None:
        """Raise `Refused` if anything was noted."""
        if self.errors:
            raise Refused(self.errors)


_SENTENCES = {
    "missing": "This is missing; send it too.",
    "string_type": "Write this as text.",
    "bool_type": "This is either on or off.",
    "bool_parsing": "This is either on or off.",
    "int_type": "Write a whole number.",
    "int_parsing": "Write a whole number.",
    "int_from_float": "Write a whole number.",
    "float_type": "Write a number.",
    "float_parsing": "Write a number.",
    "finite_number": "Write a number that is not infinite.",
    "uuid_parsing": "This is not the key of anything in the book.",
    "uuid_type": "This is not the key of anything in the book.",
    "list_type": "This is a list.",
    "too_long": "That is too long; send fewer.",
    "json_invalid": "This is not JSON; send a JSON document.",
}


def sentence_of(error: dict[str, Any]) -> str:
    """Say what is wrong with a value, and what to do."""
    kind, context = error["type"], error.get("ctx") or {}
    if kind in _SENTENCES:
        return _SENTENCES[kind]
    if kind == "string_too_long":
        return f"That is too long; use at most {context['max_length']} characters."
    if kind == "string_too_short":
        return "Write something here; it cannot be empty."
    if kind in ("greater_than_equal", "greater_than"):
        return f"That is too small; the least is {context.get('ge', context.get('gt'))}."
    if kind in ("less_than_equal", "less_than"):
        return f"That is too large; the most is {context.get('le', context.get('lt'))}."
    if kind in ("literal_error", "enum"):
        return f"Choose one of {context['expected']}."
    if kind == "value_error":
        return str(context.get("error", error["msg"]))
    if kind.startswith(("datetime", "timezone", "date_from")):
        return "Write a date and time with its time zone, such as 2027-06-12T18:30:00+02:00."
    return f"{error['msg'][:1].upper()}{error['msg'][1:]}."


def answer(problem: Problem) -> HttpResponse:
    """Send a problem as the standard's own kind of document."""
    body = problem.model_dump_json(exclude_none=True)
    return HttpResponse(body, status=problem.status, content_type="application/problem+json")


def _unreadable(errors: list[FieldError]) -> HttpResponse:
    detail = errors[0].sentence if len(errors) == 1 else f"{len(errors)} fields need another look."
    if any(error.code == TASTED for error in errors):
        return answer(Problem(title="Tasted", status=409, detail=detail, errors=errors))
    return answer(Problem(title="Cannot be read", status=422, detail=detail, errors=errors))


_DAMAGED = ("Book damaged", "The book is damaged. End Ravska and start it again: it says which backup to put back.")
_IN_USE = ("Book in use", "Something else is writing to the book; this is tried again.")
_OF_THE_BOOK = {
    "SQLITE_BUSY": _IN_USE,
    "SQLITE_LOCKED": _IN_USE,
    "SQLITE_FULL": ("Disk full", "The disk that holds the book is full: make room on it, then go on."),
    "SQLITE_READONLY": (
        "Book not writable",
        "The book or its disk lets nobody write: see to its permissions.",
    ),
    "SQLITE_CANTOPEN": ("Book not reachable", "The book cannot be opened: see to its folder and its disk."),
    "SQLITE_IOERR": ("Book not reachable", "The disk does not take or give what is in the book: see to it."),
    "SQLITE_CORRUPT": _DAMAGED,
    "SQLITE_NOTADB": _DAMAGED,
}


def install(api: NinjaAPI) -> None:
    """Give every failure of `api` a problem document; nothing ends as a bare error page."""

    @api.exception_handler(ValidationError)
    def invalid(request: HttpRequest, error: ValidationError) -> HttpResponse:
        fields = []
        for item in error.errors:
            place = [str(part) for part in item["loc"] if part not in ("body", "path", "query")]
            # the first part is the name of the view's own argument
            fields.append(FieldError(field=".".join(place[1:] or place), sentence=sentence_of(item)))
        return _unreadable(fields)

    @api.exception_handler(BadInput)
    def bad(request: HttpRequest, error: BadInput) -> HttpResponse:
        return _unreadable([field_error(error)])

    @api.exception_handler(Refused)
    def refused(request: HttpRequest, error: Refused) -> HttpResponse:
        return _unreadable([field_error(e) for e in error.errors])

    @api.exception_handler(Conflict)
    def conflict(request: HttpRequest, error: Conflict) -> HttpResponse:
        detail = "This was changed in another window since you opened it. Keep yours or take the other."
        theirs = to_jsonable_python(error.theirs)
        return answer(Problem(title="Changed meanwhile", status=409, detail=detail, theirs=theirs))

    @api.exception_handler(Stale)
    def stale(request: HttpRequest, error: Stale) -> HttpResponse:
        detail = "This was changed in another window meanwhile. Load it again and repeat the step."
        return answer(Problem(title="Changed meanwhile", status=409, detail=detail))

    @api.exception_handler(Reused)
    def reused(request: HttpRequest, error: Reused) -> HttpResponse:
        detail = "This key came with another write before; make a new one for each."
        return answer(Problem(title="Cannot be read", status=422, detail=detail))

    @api.exception_handler(LongAgo)
    def long_ago(request: HttpRequest, error: LongAgo) -> HttpResponse:
        detail = "This was done already, a while ago. Load the page again to see it."
        return answer(Problem(title="Done already", status=409, detail=detail))

    @api.exception_handler(LetGo)
    def gone(request: HttpRequest, error: LetGo) -> HttpResponse:
        return answer(Problem(title="Let go", status=409, detail="This question was let go; ask it again."))

    @api.exception_handler(Http404)
    def missing(request: HttpRequest, error: Http404) -> HttpResponse:
        detail = "This is not in the book any more; it may have been deleted in another window."
        return answer(Problem(title="Not in the book", status=404, detail=detail))

    @api.exception_handler(HttpError)
    def http(request: HttpRequest, error: HttpError) -> HttpResponse:
        detail = "This is not JSON; send a JSON document." if error.status_code == 400 else str(error)
        return answer(Problem(title="Cannot be read", status=error.status_code, detail=detail))

    @api.exception_handler(RequestDataTooBig)
    def too_large(request: HttpRequest, error: RequestDataTooBig) -> HttpResponse:
        detail = "That is more than the book takes at once; send less."
        return answer(Problem(title="Too large", status=413, detail=detail))

    @api.exception_handler(DatabaseError)
    def unreachable(request: HttpRequest, error: DatabaseError) -> HttpResponse:
        said = getattr(error.__cause__, "sqlite_errorname", "") or ""
        kind = next((kind for kind in _OF_THE_BOOK if said.startswith(kind)), None)
        if kind is None:
            return fault(request, error)
        log.error("the book could not be reached: %s", said)
        if kind not in ("SQLITE_BUSY", "SQLITE_LOCKED"):
            watch.doubt()
        title, detail = _OF_THE_BOOK[kind]
        return answer(Problem(title=title, status=503, detail=f"{detail} Nothing was changed."))

    @api.exception_handler(Exception)
    def fault(request: HttpRequest, error: Exception) -> HttpResponse:
        log.exception("%s %s", request.method, request.path)
        detail = "Ravska made a mistake here. Nothing was changed. Please try again."
        return answer(Problem(title="Our mistake", status=500, detail=detail))


ANSWERS = {409: Problem, 422: Problem, 404: Problem, 503: Problem}
"""Problem answers a route declares beside its own."""
