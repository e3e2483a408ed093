"""What every response and every write must pass."""

from collections.abc import Callable
from urllib.parse import urlsplit

from django.http import HttpRequest, HttpResponse, JsonResponse

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


def _foreign(request: HttpRequest) -> bool:
    """Tell whether a request says that it came from another site's page, or from one that cannot be."""
    origin = request.headers.get("Origin")
    try:
        return origin is not None and urlsplit(origin).netloc != request.get_host()
    except ValueError:  # no address at all
        return True


def same_origin(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Refuse writes that another site's page sends to this one.

    The book has no log-in on loopback, so a page elsewhere must not be able to write to it.
    """

    def answer(request: HttpRequest) -> HttpResponse:
        if request.method not in ("GET", "HEAD", "OPTIONS") and _foreign(request):
            detail = "This request came from another site's page. Open Ravska itself and try again."
            return _problem("Foreign page", 403, detail)
        return get_response(request)

    return answer
