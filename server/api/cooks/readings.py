"""What a coat comes to, as it is answered."""

from contextlib import suppress
from dataclasses import dataclass

from book.models import Blend, Revision
from ravska_core.blend import Blend as Mixture
from ravska_core.blend import flatten, same_mixture
from ravska_core.catalogue import while_it_stands
from ravska_core.working import BadInput


@dataclass(frozen=True, slots=True)
class LayerMarkOut:
    """What a layer is of, as the book has it, and what it is drawn with.

    `changed_since` says that its blend moved on since it was mixed; `shares` are those of the grinds. `said` says that
    its dose was said otherwise than on the dial. `left_g` is what all pieces together leave of its batch, `jars_g` what
    clean jars hold of it; none where nobody asked.
    """

    blend_name: str
    blend_deleted: bool
    changed_since: bool
    grinds: list[str]
    shares: list[float]
    said: bool = False
    left_g: float | None = None
    jars_g: float | None = None


@while_it_stands(256)
def _drawn(mixture: Mixture) -> dict[str, float]:
    """Return what a blend is drawn with; a screen asks for the same ones at every key. Not to be changed."""
    return flatten(mixture.lines)


def layer_mark(blend: Blend | None, revision: Revision | None, grind: str) -> LayerMarkOut:
    """Return what a layer of a blend, pinned at a revision or not, or of a plain grind is of."""
    if blend is None:
        grinds = [grind] if grind else []
        return LayerMarkOut("", False, False, grinds, [1.0] * len(grinds))
    leaves: dict[str, float] = {}
    changed = False
    with suppress(BadInput):  # the piece's own reading says which line is at fault
        mixture = blend.as_core(revision)
        leaves = _drawn(mixture)
        changed = revision is not None and not same_mixture(mixture, blend.as_core())
    return LayerMarkOut(blend.name, blend.deleted_at is not None, changed, list(leaves), list(leaves.values()))
