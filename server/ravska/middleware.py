"""What every response and every write must pass."""

import re
from collections.abc import Callable
from secrets import compare_digest
from urllib.parse import urlsplit

from book.condition import TITLES, watch
from django.conf import settings
from django.core.exceptions import DisallowedHost
from django.http import HttpRequest, HttpResponse, JsonResponse

from ravska.plain import plain_page

_NAME = re.compile(r"[\w.-]+(:\d+)?")
_READINGS = re.compile(r"/api/devices/\w+/readings")
_TEMPERATURES = "/api/devices/thermometer/readings"

# the component library sets styles of elements as it runs: the one exception
_POLICY = (
    "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; "
    "font-src 'self' data:; connect-src 'self'; object-src 'none'; base-uri 'none'; form-action 'self'; "
    "frame-ancestors 'none'"
)


_PROBLEM = "application/problem+json"
_SENTENCES = {
    404: "There is nothing at this address; the address may be old or mistyped.",
    405: "This address cannot be asked for that; see the API's own document for what it answers.",
    413: "That is more than the book takes at once; send less.",
}


def _problem(title: str, status: int, detail: str) -> JsonResponse:
    body = {"type": "about:blank", "title": title, "status": status, "detail": detail, "errors": []}
    return JsonResponse(body, status=status, content_type=_PROBLEM)


def problems(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Give failures below ``/api/`` that Django itself answers a problem document too."""

    def answer(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        failed = request.path.startswith("/api/") and response.status_code >= 400
        if failed and not response.headers.get("Content-Type", "").startswith(_PROBLEM):
            status = response.status_code
            detail = _SENTENCES.get(status, "This request cannot be read; send it as the API's document says.")
            return _problem(response.reason_phrase, status, detail)
        return response

    return answer


def sealed(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Say with every answer, refusals and the page's own files too, what a page may load and who may show it."""

    def answer(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        response.headers["Content-Security-Policy"] = _POLICY
        response.headers["X-Content-Type-Options"] = "nosniff"
        response.headers["Referrer-Policy"] = "same-origin"
        return response

    return answer


def known_host(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Answer by the names that were allowed only; to any other say how to allow it."""

    def answer(request: HttpRequest) -> HttpResponse:
        try:
            request.get_host()
        except DisallowedHost:
            named = request.META.get("HTTP_HOST", "")[:80]
            says = f"This Ravska was opened as “{named}”, a name it was not told to answer to."
            if request.path.startswith("/api/"):
                return _problem("Unknown name", 400, f"{says} RAVSKA_HOSTS lists those it answers to.")
            host = named.rsplit(":", 1)[0] if _NAME.fullmatch(named) else "its-name"
            how = (
                "To allow it, end Ravska on the machine it runs on, and start it there by "
                f"`RAVSKA_HOSTS=127.0.0.1,localhost,{host} RAVSKA_LISTEN=0.0.0.0:8000 make demo`."
            )
            why = (
                "There is no log-in: whoever opens a name that is allowed can read the book and write to it. Allow "
                "only names in your own network."
            )
            return plain_page("This address is not allowed yet", [says, how, why], 400)
        return get_response(request)

    return answer


_ALWAYS = ("/api/ready", "/api/ping", "/mark.svg")


def open_book(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Say in plain sentences, on page and in the API, why the book cannot be opened, as long as that is so."""

    def answer(request: HttpRequest) -> HttpResponse:
        found = watch.now()
        if found.is_open or request.path in _ALWAYS:
            return get_response(request)
        title = TITLES[found.state]
        if request.path.startswith("/api/"):
            return _problem(title, 503, " ".join(found.says).replace("`", ""))
        return plain_page(title, found.says, 503)

    return answer


def _is_own_page(request: HttpRequest) -> bool:
    """Tell whether a request comes from a page of this Ravska, as browsers say it; what says nothing does not."""
    origin = request.headers.get("Origin")
    site = request.headers.get("Sec-Fetch-Site")
    try:
        if origin is not None and urlsplit(origin).netloc != request.get_host():
            return False
    except ValueError:  # no address at all
        return False
    return site == "same-origin" or (site is None and origin == f"{request.scheme}://{request.get_host()}")


def _is_device(request: HttpRequest) -> bool:
    """Tell whether a request brings readings, and a device's token."""
    kind, _, token = request.headers.get("Authorization", "").partition(" ")
    if request.path == _TEMPERATURES:
        return kind == "Bearer"  # whose token that is the book knows
    return (
        _READINGS.fullmatch(request.path) is not None
        and kind == "Bearer"
        and compare_digest(token.strip().encode(), settings.DEVICE_TOKEN.encode())
    )


def same_origin(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Refuse writes but those of this Ravska's own page; of devices, readings with their token.

    The book has no log-in, so a page elsewhere, or whatever it can make a browser send, must not be able to write.
    """

    def answer(request: HttpRequest) -> HttpResponse:
        if request.method in ("GET", "HEAD", "OPTIONS") or _is_own_page(request) or _is_device(request):
            return get_response(request)
        detail = "This did not come from Ravska's own page. Open Ravska itself and try again."
        if _READINGS.fullmatch(request.path):
            detail = (
                "A device says who it is by “Authorization: Bearer” and its token: docs/scale.md, docs/thermometer.md."
            )
        return _problem("Not from here", 403, detail)

    return answer
