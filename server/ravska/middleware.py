"""What every response and every write must pass."""

from collections.abc import Callable
from urllib.parse import urlsplit

from django.http import HttpRequest, HttpResponse, JsonResponse

_POLICY = (
    "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; "
    "font-src 'self' data:; connect-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"
)


def same_origin(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Refuse writes that another site's page sends to this one, and limit what our own page may load.

    The book has no log-in on loopback, so a page elsewhere must not be able to write to it.
    """

    def answer(request: HttpRequest) -> HttpResponse:
        origin = request.headers.get("Origin")
        foreign = origin is not None and urlsplit(origin).netloc != request.get_host()
        if request.method not in ("GET", "HEAD", "OPTIONS") and foreign:
            detail = "This request came from another site's page. Open Ravska itself and try again."
            body = {"type": "about:blank", "title": "Foreign page", "status": 403, "detail": detail, "errors": []}
            return JsonResponse(body, status=403, content_type="application/problem+json")
        response = get_response(request)
        response.headers.setdefault("Content-Security-Policy", _POLICY)
        return response

    return answer
