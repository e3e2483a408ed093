"""What a blend comes to, as it is answered."""

from collections.abc import Sequence
from dataclasses import dataclass
from uuid import UUID

from book.models import Blend
from ravska_core.blend import Blend as CoreBlend
from ravska_core.blend import BlendReading, BlendShown, findings_of, read_blend
from ravska_core.bowl import JarFit, jar_for
from ravska_core.cautions import Caution
from ravska_core.coat import thin_cut_salt

from api.blends.documents import LineDocument
from api.plumbing.answers import with_more
from api.plumbing.household import prices, spoon_set


@dataclass(frozen=True, slots=True)
class InsideOut:
    """The blend that a line holds, as it is in the book now."""

    id: UUID
    name: str
    version: int
    deleted: bool


@dataclass(frozen=True, kw_only=True)
class BlendReadingOut(BlendShown):
    """What a blend comes to, with the blend that each of its lines holds, the jar for it, cautions and findings."""

    inside: list[InsideOut | None]
    jar: JarFit
    cautions: Sequence[Caution]


def reading_of(blend: CoreBlend) -> BlendReading:
    """Read a blend with the household's spoons and its own prices."""
    return read_blend(blend, spoon_set(), prices=prices())


def reading_out(blend: CoreBlend, lines: Sequence[LineDocument], inside: dict[UUID, Blend]) -> BlendReadingOut:
    """Return what a blend comes to, with which blends its lines hold."""
    held = [
        InsideOut(id=line.blend, name=row.name, version=row.version, deleted=row.deleted_at is not None)
        if line.blend is not None and (row := inside.get(line.blend)) is not None
        else None
        for line in lines
    ]
    found = reading_of(blend)
    return with_more(
        BlendReadingOut,
        found,
        inside=held,
        jar=jar_for(found.volume),
        cautions=findings_of(blend, found, thin_cut_salt()),
    )
