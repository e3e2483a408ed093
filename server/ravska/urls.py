"""Routes: the API, and the one page for everything else."""

from api.main import api
from django.http import Http404, HttpRequest, HttpResponse
from django.urls import path, re_path
from django.views.decorators.cache import never_cache

from ravska.settings import WEB_BUILD


@never_cache
def page(request: HttpRequest) -> HttpResponse:
    """Serve the single page; the front end's router reads the path."""
    index = WEB_BUILD / "index.html"
    if not index.is_file():
        raise Http404("The front end is not built yet: run make build.")
    return HttpResponse(index.read_bytes(), content_type="text/html; charset=utf-8")


urlpatterns = [
    path("api/", api.urls),
    re_path(r"^(?!api/|assets/).*$", page),
]
