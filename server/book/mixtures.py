"""Blends with all that lies inside them, loaded in two queries however deep they lie."""

from collections.abc import Iterable
from uuid import UUID

from django.db import models
from django.db.models.expressions import RawSQL

from book.models import Blend, Layer, Revision

_NEEDED = """
WITH RECURSIVE needed(id) AS (
  SELECT id FROM book_revision WHERE id IN ({revisions}) OR (kept_at IS NULL AND blend_id IN ({blends}))
  UNION
  SELECT COALESCE(line.inside_revision_id, draft.id)
  FROM needed
  JOIN book_line AS line ON line.revision_id = needed.id AND line.inside_id IS NOT NULL
  LEFT JOIN book_revision AS draft ON draft.blend_id = line.inside_id AND draft.kept_at IS NULL
) SELECT id FROM needed
"""
"""Revisions and drafts that something is made of; a line follows the draft of its blend unless it pins a revision."""


def load_mixtures(blends: Iterable[Blend], revisions: Iterable[Revision] = ()) -> None:
    """Load the drafts of blends and the lines of revisions, with all that lies inside them, into these very rows."""
    known = {blend.pk: blend for blend in blends}
    given = {revision.pk: revision for revision in revisions}
    if not known and not given:
        return
    marks = {name: ", ".join(["%s"] * len(keys)) for name, keys in (("revisions", given), ("blends", known))}
    needed = RawSQL(_NEEDED.format(**marks), [key.hex for key in (*given, *known)])
    by_key: dict[UUID, Revision] = {}
    for row in Revision.objects.filter(pk__in=needed).select_related("blend"):
        revision = by_key[row.pk] = given.get(row.pk, row)
        revision.blend = known.setdefault(row.blend_id, row.blend)
        if revision.kept_at is None:
            revision.blend.drafts = [revision]
    models.prefetch_related_objects(list(by_key.values()), "lines")
    for revision in by_key.values():
        for line in revision.lines.all():
            if line.inside_id is not None:
                line.inside = known[line.inside_id]
                if line.inside_revision_id is not None:
                    line.inside_revision = by_key[line.inside_revision_id]


def load_layers(layers: Iterable[Layer]) -> None:
    """Load what layers are of; each blend and each pinned revision is one row for all of them."""
    blends: dict[UUID, Blend] = {}
    revisions: dict[UUID, Revision] = {}
    for layer in layers:
        if layer.blend is not None:
            layer.blend = blends.setdefault(layer.blend.pk, layer.blend)
        if layer.revision is not None:
            layer.revision = revisions.setdefault(layer.revision.pk, layer.revision)
    load_mixtures(blends.values(), revisions.values())
