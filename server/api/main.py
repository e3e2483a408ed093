"""The typed API, a package a noun, each mounted at its prefix."""

from django.http import HttpRequest
from ninja import NinjaAPI, Schema

from api.batches import router as batches
from api.blends import bench, bring, revisions, spoons
from api.blends import router as blends
from api.book import router as book
from api.cooks import coat, needle, side_by_side, totals, ways
from api.cooks import router as cooks
from api.devices import scale
from api.plumbing import problems
from api.shelf import router as shelf
from api.trials import router as trials
from api.trials import verdict

NOUNS = {
    "blends": (blends, bench, bring, revisions, spoons),
    "cooks": (cooks, coat, side_by_side, needle, totals, ways),
    "batches": (batches,),
    "trials": (trials, verdict),
    "shelf": (shelf,),
    "devices": (scale,),
    "book": (book,),
}

api = NinjaAPI(title="Ravska", version="1", docs_url=None, urls_namespace="api")
problems.install(api)


class Pong(Schema):
    ok: bool


@api.get("/ping", response=Pong, tags=["ravska"])
def ping(request: HttpRequest) -> Pong:
    """Answer, so that a screen knows the server is there. Also the floor that speed is measured against."""
    return Pong(ok=True)


for _noun, _modules in NOUNS.items():
    for _module in _modules:
        api.add_router(f"/{_noun}", _module.router, tags=[_noun])
