"""The typed API, a package a noun, each mounted at its prefix."""

from typing import Any, Literal

from book.condition import READY, TITLES, State, watch
from django.http import HttpRequest, HttpResponse
from ninja import NinjaAPI, Schema
from ninja.openapi.schema import OpenAPISchema

from api.batches import router as batches
from api.blends import bench, bring, finding, revisions, spoons
from api.blends import router as blends
from api.book import router as book
from api.cooks import again, coat, day, divide, heat, needle, sheet, side_by_side, table, totals, ways
from api.cooks import router as cooks
from api.devices import scale, thermometer
from api.fire import after as after_fire
from api.fire import readings as fire_readings
from api.fire import router as fire
from api.plumbing import problems
from api.shelf import own, own_cookers, own_cuts
from api.shelf import router as shelf
from api.trials import cards_csv, design, verdict
from api.trials import router as trials
from api.verdicts import bands, decisions, next_up, take_away
from api.verdicts import router as verdicts

NOUNS = {
    "blends": (blends, bench, bring, finding, revisions, spoons),
    "cooks": (cooks, again, divide, coat, day, sheet, table, heat, side_by_side, needle, totals, ways),
    "batches": (batches,),
    "trials": (trials, design, cards_csv, verdict),
    "verdicts": (verdicts, bands, decisions, next_up, take_away),
    "shelf": (shelf, own, own_cuts, own_cookers),
    "devices": (scale, thermometer),
    "fire": (fire, after_fire, fire_readings),
    "book": (book,),
}


def _pairs_as_lists(part: Any) -> Any:
    """Return a schema with its pairs of the same as lists of two: the front end's client keeps no tuples."""
    if isinstance(part, list):
        return [_pairs_as_lists(each) for each in part]
    if not isinstance(part, dict):
        return part
    first, *others = part.get("prefixItems") or [None]
    if others and all(each == first for each in others):
        part = {key: value for key, value in part.items() if key != "prefixItems"} | {"items": first}
    return {key: _pairs_as_lists(value) for key, value in part.items()}


class Api(NinjaAPI):
    """The API, whose document says pairs as lists."""

    def get_openapi_schema(self, **given: Any) -> OpenAPISchema:
        """Return the API's document."""
        schema = super().get_openapi_schema(**given)
        schema.update(_pairs_as_lists(dict(schema)))
        return schema


api = Api(
    title="Ravska",
    version="1",
    description="Every write may carry an Idempotency-Key, a UUID of its own: sent again under it, it is answered as "
    "it was. Writes are taken from Ravska's own page, readings from devices with their token.",
    docs_url=None,
    urls_namespace="api",
)
problems.install(api)


class Pong(Schema):
    ok: bool


@api.get("/ping", response=Pong, tags=["ravska"])
def ping(request: HttpRequest) -> Pong:
    """Answer, so that a screen knows the server is there. Also the floor that speed is measured against."""
    return Pong(ok=True)


class Ready(Schema):
    """The book can be read and written to."""

    state: Literal["ready"] = "ready"


class NotReady(problems.Problem):
    """Why the book cannot be read or written to, as sentences that say what to do."""

    state: State
    says: list[str]


@api.get("/ready", response={200: Ready, 503: NotReady}, tags=["ravska"])
def ready(request: HttpRequest) -> HttpResponse:
    """Tell whether the book can be read and written to, or why not."""
    found = watch.look()
    if found == READY:
        return HttpResponse(Ready().model_dump_json(), content_type="application/json")
    title = TITLES[found.state]
    says = list(found.says)
    return problems.answer(NotReady(title=title, status=503, detail=" ".join(says), state=found.state, says=says))


for _noun, _modules in NOUNS.items():
    for _module in _modules:
        api.add_router(f"/{_noun}", _module.router, tags=[_noun])
