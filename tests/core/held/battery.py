"""Cases of every kind and what the core makes of them, number by number: `python tests/core/held/battery.py`.

The other tests say why a figure is right; these hold all of them where they are, so that a line changed by mistake is
seen. What is meant to move is written anew with that command, and what moved is read in the difference before it is
committed. Of sentences only the numbers are held. Cases are drawn with a seed, over all kinds of blends, layers, cuts
and words.
"""

import json
import math
import random
import re
import sys
import zlib
from collections.abc import Callable, Iterator, Mapping
from dataclasses import fields, is_dataclass
from fractions import Fraction
from pathlib import Path
from typing import Any

import numpy as np
from ravska_core.catalogue import Cut, Grind
from ravska_core.working import BadInput, Figure, Step

HERE = Path(__file__).parent
Case = Callable[[], object]


def plain(of: object) -> Any:
    """Numbers, keys and conditions of a result as JSON; of sentences the numbers in them, arrays thinned."""
    if isinstance(of, bool | int | None):
        return of
    if isinstance(of, float | np.floating):
        return float(f"{of:.10g}") if math.isfinite(of) else str(of)
    if isinstance(of, str):
        if len(of) > 40 and " " not in of:  # a row of a drawing
            return zlib.crc32(of.encode())
        return of if " " not in of else " ".join(re.findall(r"\d+(?:\.\d+)?|[½⅓⅔¼¾⅛⅝⅞⅜–]", of))
    if isinstance(of, Fraction):
        return str(of)
    if isinstance(of, Grind | Cut):
        return of.key
    if isinstance(of, Figure):
        return [plain(of.value), plain(of.low), plain(of.high), plain(of.error), [plain(step) for step in of.steps]]
    if isinstance(of, Step):
        numbers = plain(of.formula)
        return [plain(of.value), numbers] if re.search(r"\d", str(numbers)) else plain(of.value)
    if isinstance(of, np.ndarray):
        return plain(of.ravel()[:: max(1, of.size // 12)].tolist())
    if is_dataclass(of):
        return {field.name: plain(getattr(of, field.name)) for field in fields(of)}
    if isinstance(of, Mapping):
        return {key if isinstance(key, str) else str(plain(key)): plain(value) for key, value in of.items()}
    if isinstance(of, frozenset | set):
        return sorted(map(plain, of))
    return [plain(one) for one in of]  # type: ignore[attr-defined]


def outcome(case: Case) -> Any:
    """What a case comes to, or where it was refused."""
    try:
        return plain(case())
    except BadInput as refusal:
        return {"refused": refusal.argument}


def moved(held: Any, found: Any, path: str = "") -> Iterator[str]:
    """Where a result is not what was held: floats to 1e-9, all else as it is."""
    if isinstance(held, dict) and isinstance(found, dict) and held.keys() == found.keys():
        for key in held:
            yield from moved(held[key], found[key], f"{path}.{key}")
    elif isinstance(held, list) and isinstance(found, list) and len(held) == len(found):
        for at, (was, now) in enumerate(zip(held, found, strict=True)):
            yield from moved(was, now, f"{path}.{at}")
    elif isinstance(held, float | int) and isinstance(found, float | int) and not isinstance(held, bool):
        if not math.isclose(held, found, rel_tol=1e-9, abs_tol=1e-11):
            yield f"{path}: {held} → {found}"
    elif held != found:
        yield f"{path}: {held} → {found}"


def held(subject: str) -> dict[str, Any]:
    """What a subject's cases came to when they were last looked through."""
    return dict(json.loads(line) for line in (HERE / f"{subject}.jsonl").read_text().splitlines())


def main() -> None:
    """Write what every case comes to, one a line."""
    import cases

    for subject, named in cases.SUBJECTS.items():
        random.seed(0)
        lines = [json.dumps([name, outcome(case)], ensure_ascii=False, separators=(",", ":")) for name, case in named()]
        (HERE / f"{subject}.jsonl").write_text("\n".join(lines) + "\n")
        print(f"{subject}: {len(lines)} cases, {sum(map(len, lines)) // 1000} kB")


if __name__ == "__main__":
    sys.exit(main())
