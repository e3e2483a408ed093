"""The API's own document as a contract: every answer in the tests is held against it."""

import json
import re
from functools import cache

from api.main import api
from jsonschema import Draft202012Validator
from referencing import Registry, Resource
from referencing.jsonschema import DRAFT202012

_ROOT = "urn:ravska"


@cache
def _document() -> dict:
    return json.loads(json.dumps(api.get_openapi_schema(path_prefix="/api/")))


@cache
def _routes() -> tuple[tuple[re.Pattern, dict], ...]:
    """Return the addresses as patterns, those without a key in them first."""
    found = []
    for path, methods in sorted(_document()["paths"].items(), key=lambda item: item[0].count("{")):
        parts = re.split(r"(\{[^}]*\})", path)
        pattern = "".join("[^/]+" if part.startswith("{") else re.escape(part) for part in parts)
        found.append((re.compile(f"{pattern}$"), methods))
    return tuple(found)


@cache
def _validator(pointer: str) -> Draft202012Validator:
    registry = Registry().with_resource(_ROOT, Resource.from_contents(_document(), default_specification=DRAFT202012))
    return Draft202012Validator({"$ref": f"{_ROOT}#{pointer}"}, registry=registry)


def _pointer(*steps: str) -> str:
    return "".join("/" + step.replace("~", "~0").replace("/", "~1") for step in steps)


def hold_to_contract(method: str, path: str, status: int, media: str, answer: object) -> None:
    """Check an answer against what the API's document says of this address, method and status."""
    address = path.split("?")[0]
    methods = next((methods for pattern, methods in _routes() if pattern.match(address)), None)
    if methods is None or method.lower() not in methods:
        assert status in (403, 404, 405), f"{method} {path} is in no document and answers {status}"
        return
    answers = methods[method.lower()]["responses"]
    if str(status) not in answers:
        assert status in (400, 403, 405, 413), f"{method} {path} answers {status}, which its document does not know"
        return
    route = next(path for path, of in _document()["paths"].items() if of is methods)
    content = _pointer("paths", route, method.lower(), "responses", str(status), "content")
    if media.startswith("application/") and "json" in media:
        _validator(f"{content}/application~1json/schema").validate(answer)
