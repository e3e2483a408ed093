"""Blends as schema.org recipes."""

import html
import json
import re
from collections.abc import Iterator, Mapping
from typing import Any

from ravska_core.blend import KINDS, Blend
from ravska_core.exchange.forms import Brought, beside, check_length, exact_beside, mass_of, on_paper, where_in
from ravska_core.exchange.lists import read_list
from ravska_core.measure import SPOON_SETS, SpoonSet
from ravska_core.working import BadInput

EXACT = "exact ratio of Ravska"
"""What the property is called that carries the exact blend beside what every reader understands."""


def write_jsonld(blend: Blend, owned: SpoonSet = SPOON_SETS["us"], exact: str = "") -> str:
    """Return a blend as a schema.org Recipe in JSON-LD, as a cook would write it, with what a portion of it holds.

    What it is exactly lies beside it, as an additional property of what it makes.
    """
    paper = on_paper(blend, owned)
    entries = [line.text for line in paper.lines]
    document: dict[str, Any] = {
        "@context": "https://schema.org",
        "@type": "Recipe",
        "name": paper.name,
        "recipeCategory": blend.kind,
        "recipeYield": paper.makes,
        "recipeIngredient": entries,
        "recipeInstructions": [
            {"@type": "HowToStep", "position": at, "text": text} for at, text in enumerate(paper.steps, 1)
        ],
        "yield": {"@type": "QuantitativeValue", "value": blend.batch_g, "unitText": "g"},
    }
    if exact:
        held = {"@type": "PropertyValue", "name": EXACT, "value": beside(exact, paper, entries)}
        document["yield"]["additionalProperty"] = [held]
    if blend.fire:
        document["cookingMethod"] = blend.fire
    if paper.reading is not None:
        found, share = paper.reading, paper.portion_g / 100
        document["nutrition"] = {
            "@type": "NutritionInformation",
            "servingSize": paper.portion,
            "sodiumContent": f"{found.sodium_share * 100_000 * share:.0f} mg",
            "sugarContent": f"{found.sugar.value * share:.1f} g",
            "fatContent": f"{found.fat_share * 100 * share:.1f} g",
        }
    return json.dumps(document, ensure_ascii=False, indent=2) + "\n"


def _exact_in(recipe: dict[str, Any]) -> str:
    made = recipe.get("yield")
    held = made.get("additionalProperty") if isinstance(made, dict) else None
    for one in held if isinstance(held, list) else [held]:
        if isinstance(one, dict) and one.get("name") == EXACT and isinstance(one.get("value"), str):
            return str(one["value"])
    return ""


_MARK = re.compile(r"<!--|<script\b([^>]{0,400})>", re.IGNORECASE)

_SCRIPT_ENDS = re.compile(r"</script", re.IGNORECASE)


def _scripts(page: str) -> Iterator[tuple[int, str]]:
    """Yield the JSON-LD scripts of a page, each with how many lines stand before it.

    As browsers have it, a script ends with the first ``</script`` and nothing in a comment counts. What is damaged is
    passed over; every character is looked at a few times, however the page is nested.
    """
    at = counted = lines = 0
    commented = True
    while mark := _MARK.search(page, at):
        at = mark.end()
        if mark[0] == "<!--":
            closed = page.find("-->", at) if commented else -1
            commented = closed >= 0  # an open comment is text, and so are all after it
            at = closed if commented else at
            continue
        ends = _SCRIPT_ENDS.search(page, at)
        if "ld+json" in mark[1].lower():
            lines, counted = lines + page.count("\n", counted, at), at
            yield lines, page[at : ends.start() if ends else len(page)]
        if ends is None:
            return
        at = ends.end()


def _json(text: str, lines_before: int) -> Any:
    try:
        return json.loads(text, parse_constant=lambda name: None)
    except json.JSONDecodeError as fault:
        raise BadInput(
            "text",
            f"Line {fault.lineno + lines_before}, column {fault.colno}: this is not JSON here ({fault.msg.lower()}); "
            "save the recipe again or paste its list of ingredients.",
        ) from None
    except (RecursionError, ValueError):
        raise BadInput(
            "text", "Line 1, column 1: this JSON is nested too deep or holds a number too long for a recipe."
        ) from None


def _recipes(node: Any, depth: int = 0) -> Iterator[dict[str, Any]]:
    if depth > 12:
        return
    if isinstance(node, list):
        for part in node[:500]:
            yield from _recipes(part, depth + 1)
    elif isinstance(node, dict):
        types = node.get("@type")
        named = types if isinstance(types, list) else [types]
        if any(isinstance(t, str) and t.rsplit("/", 1)[-1] == "Recipe" for t in named):
            yield node
        else:
            for key in ("@graph", "mainEntity", "mainEntityOfPage", "itemListElement", "item"):
                if key in node:
                    yield from _recipes(node[key], depth + 1)


def _plain(value: Any) -> str:
    if isinstance(value, list):
        value = next((part for part in value if part), "")
    if not isinstance(value, str | int | float):
        return ""
    text = html.unescape(re.sub(r"<[^>]{0,200}>", " ", str(value)))
    return re.sub(r"\s+", " ", text).strip()


def _instructions(node: Any, depth: int = 0) -> Iterator[str]:
    if depth > 6:
        return
    if isinstance(node, str):
        for part in re.split(r"\n+|(?<=[.!?])\s+(?=[A-ZÄÖÜ])", html.unescape(re.sub(r"<[^>]{0,200}>", "\n", node))):
            if part.strip():
                yield re.sub(r"\s+", " ", part).strip()[:400]
    elif isinstance(node, list):
        for part in node[:200]:
            yield from _instructions(part, depth + 1) if not isinstance(part, str) else iter([_plain(part)[:400]])
    elif isinstance(node, dict):
        if "itemListElement" in node:
            yield from _instructions(node["itemListElement"], depth + 1)
        else:
            text = _plain(node.get("text") or node.get("name") or "")
            if text:
                yield text[:400]


def from_jsonld(text: str, owned: SpoonSet, blends: Mapping[str, str]) -> Brought:
    blocks = [(0, text)]
    if text.lstrip()[:1] not in ("{", "["):
        blocks = list(_scripts(text))
    recipes = [recipe for before, block in blocks for recipe in _recipes(_json(block, before))]
    if not recipes:
        raise BadInput("text", "Line 1, column 1: there is no schema.org Recipe in this file; paste its list instead.")
    recipe, notes = recipes[0], []
    if len(recipes) > 1:
        notes.append(f"The file holds {len(recipes)} recipes; this is the first, bring the others in one by one.")
    raw = recipe.get("recipeIngredient", recipe.get("ingredients", []))
    raw = raw if isinstance(raw, list) else [raw]
    entries = [_plain(entry) for entry in raw if not isinstance(entry, dict | list)]
    if len(entries) < len(raw):
        notes.append(f"{len(raw) - len(entries)} ingredients are no text; write them in yourself.")
    check_length(entries)
    lines = read_list("\n".join(entry or "-" for entry in entries), owned, blends) if entries else ()
    kind = _plain(recipe.get("recipeCategory", "")).lower()
    steps = tuple(step for step in _instructions(recipe.get("recipeInstructions", [])) if step)
    exact, why = exact_beside(_exact_in(recipe), [*entries, *steps, _plain(recipe.get("recipeYield", ""))])
    notes += [why] if why else []
    return Brought(
        "jsonld",
        _plain(recipe.get("name", ""))[:80],
        kind if kind in KINDS else "",
        mass_of(_plain(recipe.get("recipeYield", ""))),
        where_in(lines, entries, text),
        steps,
        tuple(notes),
        exact,
    )
