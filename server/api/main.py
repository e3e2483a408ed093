"""The typed API, a router a station."""

from ninja import NinjaAPI, Schema

from api import (
    batches,
    blend,
    blend_bench,
    blend_bring,
    blend_revisions,
    blend_spoons,
    coat,
    home,
    injecting,
    problems,
    scale,
    shelf,
    side_by_side,
    stacks,
    table,
    verdict,
)

api = NinjaAPI(title="Ravska", version="1", docs_url=None, urls_namespace="api")
problems.install(api)


class Pong(Schema):
    ok: bool


@api.get("/ping", response=Pong, tags=["ravska"])
def ping(request) -> Pong:
    """Answer, so that a screen knows the server is there. Also the floor that speed is measured against."""
    return Pong(ok=True)


for _router in (
    home.router,
    blend_bench.router,
    blend_bring.router,
    blend_spoons.router,
    blend.router,
    blend_revisions.router,
    coat.router,
    side_by_side.router,
    injecting.router,
    stacks.router,
    table.router,
    verdict.router,
    shelf.router,
    batches.router,
    scale.router,
):
    api.add_router("", _router)
