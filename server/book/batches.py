"""A batch from the first pour to the jar: begun from a blend, weighed line by line, corrected, put on the shelf."""

from dataclasses import dataclass, replace
from uuid import UUID

from django.db.models import Max
from django.utils import timezone
from ravska_core.blend import Blend as CoreBlend
from ravska_core.blend import BlendReading, Line, check_blend, exact_parts, parts_of, read_blend
from ravska_core.blend import shares as core_shares
from ravska_core.bowl import RESCUES, Correction, as_weighed, rescues, stand, weigh_order
from ravska_core.measure import SPOON_SETS, SpoonSet
from ravska_core.working import BadInput

from book.mixtures import load_mixtures
from book.models import Batch, BatchLine, Blend, Household, Jar, Pour

MOST_LINES_CORRECTED = 40
"""How many things that were not in the recipe a batch may be given after tasting."""


@dataclass(frozen=True)
class InBowl:
    """What a batch is made of, for the core: the blend with what was brought in later, wanted and poured [g] a line.

    `recipe` is the blend as it was kept, `lines` are the batch's own, in the order of the blend's.
    """

    recipe: CoreBlend
    blend: CoreBlend
    wanted_g: list[float]
    poured_g: list[float]
    lines: list[BatchLine]


def begin_batch(household: Household, blend: Blend, wanted_g: float, resolution_g: float) -> Batch:
    """Begin to weigh a blend out; it is kept as it is now.

    Raises
    ------
    BadInput
        At ``blend`` for one that is empty or cannot be read.
    """
    revision = blend.keep("weighed out")
    load_mixtures([], [revision])
    mixture = blend.as_core(revision)
    if not mixture.lines:
        raise BadInput("blend", "There is nothing in this blend to weigh; add its first ingredient.")
    if mixture.label is not None:
        raise BadInput("blend", "A bought blend is mixed already; weigh it as a line of a blend of your own.")
    parts = check_blend(mixture)
    shares = core_shares(mixture.lines, parts)
    batch = Batch.objects.create(
        household=household, blend=blend, revision=revision, name=blend.name, wanted_g=wanted_g,
        resolution_g=resolution_g,
    )  # fmt: skip
    BatchLine.objects.bulk_create(
        BatchLine(
            batch=batch, position=place, line=at, name=parts[at].name[:120], grind=mixture.lines[at].grind,
            wanted_g=shares[at] * wanted_g,
        )
        for place, at in enumerate(weigh_order(mixture))
    )  # fmt: skip
    return batch


def in_bowl(batch: Batch) -> InBowl:
    """Return what a batch is made of, loaded with its lines, its pours and what its revision holds."""
    mixture = batch.blend.as_core(batch.revision)
    rows = sorted(batch.lines.all(), key=lambda row: (row.line is None, row.line or 0, row.position))
    lines = list(mixture.lines)
    for row in rows:
        if row.line is None:
            lines.append(Line(row.grind, exact_parts(max(row.wanted_g, 0.001), len(lines)), "scale"))
    blend = replace(mixture, lines=tuple(lines), batch_g=batch.wanted_g)
    return InBowl(mixture, blend, [row.wanted_g for row in rows], [poured(row) for row in rows], rows)


def poured(row: BatchLine) -> float:
    """Return what lies in the bowl of a line [g]; what is left of rounding after a spoon is nothing."""
    return max(0.0, round(sum(pour.grams for pour in row.pours.all()), 3))


def read_bowl(batch: Batch, bowl: InBowl, spoons: SpoonSet = SPOON_SETS["us"]) -> BlendReading | None:
    """Return what lies in the bowl comes to, or None while it is empty; its method counts once all of it is in."""
    if not sum(bowl.poured_g):
        return None
    whole = batch.state == "mixed" or all(row.done for row in bowl.lines)
    try:
        return read_blend(as_weighed(bowl.blend, bowl.poured_g, whole), spoons)
    except BadInput:
        # what was weighed instead of what was wanted cannot be simmered down so far
        return read_blend(as_weighed(bowl.blend, bowl.poured_g, False), spoons)


def pour(batch: Batch, row: BatchLine, grams: float, how: str, key: UUID) -> None:
    """Note that something went into the bowl, or came out again; one sent twice counts once.

    Raises
    ------
    BadInput
        At ``grams`` for nothing, or more taken out than there is.
    """
    if Pour.objects.filter(key=key).exists():
        return
    if how == "spooned out":
        if grams >= 0 or -grams > poured(row) + batch.resolution_g:
            raise BadInput("grams", "Only what lies on top of this line can be taken out again; check the weight.")
    elif not 0 < grams <= 60_000:
        raise BadInput("grams", "Something weighed is above 0 and at most 60 kg; write for example 12.5.")
    Pour.objects.create(line=row, number=_next_number(batch), grams=grams, how=how, key=key)


def _next_number(batch: Batch) -> int:
    """Return the number of the batch's next pour."""
    last: int | None = Pour.objects.filter(line__batch=batch).aggregate(last=Max("number"))["last"]
    return 1 + (last or 0)


def last_pour(batch: Batch) -> Pour | None:
    """Return what was poured last, by order and not by the clock."""
    return Pour.objects.filter(line__batch=batch).order_by("-number").first()


def settle_line(batch: Batch, row: BatchLine) -> str:
    """Mark a line done when it was met; return where it stands."""
    now = sum(Pour.objects.filter(line=row).values_list("grams", flat=True))
    where = stand(row.wanted_g, now, batch.resolution_g)
    BatchLine.objects.filter(pk=row.pk).update(done=where == "met")
    return where


def rescue(batch: Batch, bowl: InBowl, at: int, choice: str) -> None:
    """Carry out one of the three ways out of an overshoot."""
    found = next((x for x in rescues(bowl.blend, bowl.wanted_g, bowl.poured_g, at) if x.id == choice), None)
    if found is None:
        raise BadInput("choice", f"Choose one of {', '.join(RESCUES)}.")
    if choice == "spoon out":
        return  # it is done when less of it lies in the bowl
    for row, wanted, now in zip(bowl.lines, found.wanted_g, bowl.poured_g, strict=True):
        row.wanted_g = wanted
        row.done = now > 0 and stand(wanted, now, batch.resolution_g) == "met"
    if choice == "accept":
        bowl.lines[at].done = True
    BatchLine.objects.bulk_update(bowl.lines, ["wanted_g", "done"])
    batch.wanted_g = found.batch_g
    batch.save(update_fields=["wanted_g"])


def fill_jar(batch: Batch, left_g: float, size_ml: float) -> Jar:
    """End a batch in a jar on the shelf."""
    batch.state, batch.mixed_at = "mixed", timezone.now()
    batch.save(update_fields=["state", "mixed_at"])
    return Jar.objects.create(batch=batch, size_ml=size_ml, left_g=left_g)


def correct(batch: Batch, bowl: InBowl, found: Correction, key: UUID) -> None:
    """Note a correction as pours: more of the lines that are there, and new ones for what is not."""
    keys = [UUID(int=(key.int + at) % 2**128) for at in range(len(found.lines) + len(found.adds))]
    if Pour.objects.filter(key=keys[0]).exists():
        return
    for (at, grams), own in zip(found.lines, keys, strict=False):
        row = bowl.lines[at]
        BatchLine.objects.filter(pk=row.pk).update(wanted_g=row.wanted_g + grams)
        Pour.objects.create(line=row, number=_next_number(batch), grams=grams, how="corrected", key=own)
    last = max(row.position for row in bowl.lines)
    if sum(row.line is None for row in bowl.lines) + len(found.adds) > MOST_LINES_CORRECTED:
        raise BadInput("taste", "This batch was corrected too often to be its blend any more; keep it as a new blend.")
    for number, ((grind, grams), own) in enumerate(zip(found.adds, keys[len(found.lines) :], strict=True), 1):
        (part,) = parts_of([Line(grind, exact_parts(1, 0), "scale")])
        row = BatchLine.objects.create(
            batch=batch, position=last + number, name=part.name[:120], grind=grind, wanted_g=grams, done=True
        )
        Pour.objects.create(line=row, number=_next_number(batch), grams=grams, how="corrected", key=own)
    jar = Jar.objects.filter(batch=batch).first()
    if jar is not None:
        jar.left_g += sum(grams for _, grams in (*found.lines, *found.adds))
        jar.save(update_fields=["left_g"])
