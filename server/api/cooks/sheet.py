"""A day to take along: what to buy and to mix, as a page, a calendar and Markdown; none of it tells on a trial."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from secrets import token_urlsafe
from typing import Annotated
from urllib.parse import quote
from uuid import UUID

from book.models import Blend, Cook, Stale, Stock, claim_version
from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Schema
from pydantic import Field
from ravska_core.blend import check_blend, shares
from ravska_core.catalogue import catalogue, folded, said_name
from ravska_core.day import DayReading, find_zone, instead_of, look_for, read_day, write_calendar, write_markdown
from ravska_core.meat import find_cut
from ravska_core.units import say_mass
from ravska_core.working import BadInput

from api.cooks.day import ZoneName, read_day_of
from api.cooks.planned import Planned, hidden, planned_of
from api.cooks.store import one_cook
from api.cooks.totals import TotalsOut, totals_of
from api.plumbing.answers import Router
from api.plumbing.household import household
from api.plumbing.problems import Conflict
from api.plumbing.typed import Version

router = Router()


@dataclass(frozen=True, slots=True)
class MeatToBuyOut:
    """Meat to buy [g]: its cut, other names of it, what to look for at the counter, and cuts that will do instead."""

    cut: str
    grams: float
    other_names: tuple[str, ...]
    look_for: str
    instead: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class LineOut:
    """An ingredient of what is mixed [g], by its name and its grind, which what is a blend itself has none of."""

    name: str
    grams: float
    grind: str


@dataclass(frozen=True, slots=True)
class ToBuyOut:
    """An ingredient that is needed [g], by grind and name; what is in the house, as typed, and what is to buy [g]."""

    grind: str
    name: str
    grams: float
    have: str
    buy_g: float


@dataclass(frozen=True, slots=True)
class ToMixOut:
    """A blend that is mixed [g], with what clean jars hold of it already, and its lines by name [g]."""

    name: str
    grams: float
    in_jars_g: float
    aside_g: float
    lines: list[LineOut]


@dataclass(frozen=True, slots=True)
class SheetOut:
    """A day to take along. `hidden` says that names are left out as a trial still hides them."""

    name: str
    zone: str
    hidden: bool
    day: DayReading
    names: dict[str, str]
    meat: list[MeatToBuyOut]
    buy: list[ToBuyOut]
    mix: list[ToMixOut]
    sides: list[str]


def _mixing(cook: Cook, totals: TotalsOut) -> list[ToMixOut]:
    rows = {row.pk: row for row in Blend.objects.filter(pk__in=[one.blend_id for one in totals.blends])}
    known = {layer.blend.pk: layer.blend for piece in cook.pieces.all() for layer in piece.layers.all() if layer.blend}
    found = []
    for total in totals.blends:
        row = known.get(total.blend_id) or rows[total.blend_id]
        lines: list[LineOut] = []
        try:
            mixture = row.as_core()
            for line, share in zip(mixture.lines, shares(mixture.lines, check_blend(mixture)), strict=True):
                name = line.blend.name if line.blend is not None else said_name(line.grind)
                grind = "" if line.blend is not None else line.grind
                lines.append(LineOut(name, share * total.mix.value, grind))
        except BadInput:
            pass  # that it cannot be mixed is said with the totals
        found.append(ToMixOut(total.name, total.mix.value, total.shelf_g, total.aside_g, lines))
    return found


def _to_buy(totals: TotalsOut, mixing: Sequence[ToMixOut]) -> list[ToBuyOut]:
    """Return every ingredient of all that is mixed, and what goes on plain, each once, less what is in the house."""
    grams: dict[str, float] = {}
    for one in mixing:
        for line in one.lines:
            if line.grind:
                grams[line.grind] = grams.get(line.grind, 0.0) + line.grams
    for plain in totals.plain:
        grams[plain.grind] = grams.get(plain.grind, 0.0) + plain.takes.value
    stock = {row.grind: row for row in Stock.objects.filter(household=household(), grind__in=grams)}
    found = []
    for grind, needed in grams.items():
        if needed > 0:
            kept = stock.get(grind)
            have_g = 0.0 if kept is None else needed if kept.grams is None else kept.grams
            typed = kept.typed if kept else ""
            found.append(ToBuyOut(grind, said_name(grind), needed, typed, max(0.0, needed - have_g)))
    return sorted(found, key=lambda one: one.name)


def _meat(cook: Cook, totals: TotalsOut) -> list[MeatToBuyOut]:
    """Return what meat to buy, each cut once."""
    by_cut: dict[str, float] = {}
    cuts = {piece.letter: piece.cut for piece in cook.pieces.all()}
    for row in totals.buy:
        by_cut[cuts[row.letter]] = by_cut.get(cuts[row.letter], 0.0) + row.buy.value
    found = []
    for key, grams in by_cut.items():
        cut = find_cut(key)
        like = catalogue().cuts.get(cut.like, cut)
        found.append(MeatToBuyOut(cut.name, grams, like.other_names, look_for(cut), instead_of(like)))
    return found


def _sheet(of: Planned) -> SheetOut:
    cook = of.cook
    day, _ = read_day(of.supper)
    totals = totals_of(cook)
    mixing = _mixing(cook, totals)
    names = {piece.letter: piece.name for piece in of.pieces}
    return SheetOut(
        cook.name, of.zone, hidden(cook), day, names, _meat(cook, totals), _to_buy(totals, mixing),
        [one for one in mixing if one.grams > 0], [row.name for row in cook.sides.all()],
    )  # fmt: skip


@router.reads("/{uuid:cook_id}/sheet")
def read_sheet(request: HttpRequest, cook_id: UUID, zone: ZoneName = "") -> SheetOut:
    """Return a day to take along: what to do when, what to buy, what to mix."""
    return _sheet(planned_of(cook_id, zone, whole=False))


def _file_name(name: str) -> str:
    words = "".join(c if c.isalnum() else " " for c in folded(name)).split()
    return "-".join(words)[:60].encode("ascii", "ignore").decode() or "day"


def _attached(body: str | bytes, media: str, name: str, ending: str) -> HttpResponse:
    answer = HttpResponse(body, content_type=media)
    answer["Content-Disposition"] = f'attachment; filename="{_file_name(name)}.{ending}"'
    return answer


def _meat_line(one: MeatToBuyOut, units: str) -> str:
    called = f" ({', '.join(one.other_names)})" if one.other_names else ""
    instead = f"; or {', '.join(one.instead)}" if one.instead else ""
    return f"{say_mass(one.grams, units)} {one.cut}{called}: {one.look_for}{instead}"


def _lists(sheet: SheetOut, units: str) -> list[tuple[str, list[str]]]:
    """Return what to buy and to mix as lines of lists."""
    buy = [_meat_line(one, units) for one in sheet.meat]
    buy += [
        f"{say_mass(one.buy_g, units)} {one.name}" + (f" (besides {one.have} in the house)" if one.have else "")
        for one in sheet.buy if one.buy_g
    ]  # fmt: skip
    buy += [f"what {name} takes" for name in sheet.sides]
    there = [one.name for one in sheet.buy if not one.buy_g]
    buy += [f"in the house already: {', '.join(there)}"] if there else []
    mix = [
        f"{one.name}, {say_mass(one.grams, units)}: "
        + ", ".join(f"{line.name} {say_mass(line.grams, units)}" for line in one.lines)
        + (f"; set {say_mass(one.aside_g, units)} aside before it touches raw meat" if one.aside_g else "")
        + (f"; jars hold {say_mass(one.in_jars_g, units)} besides" if one.in_jars_g else "")
        for one in sheet.mix
    ]
    clocks = [
        f"{sheet.names.get(clock.letter, '')}: {clock.says}".removeprefix(": ") for clock in sheet.day.clocks
    ]  # fmt: skip
    return [("Buy", buy), ("Mix", mix), ("Clocks", clocks)]


@router.reads("/{uuid:cook_id}/sheet/markdown")
def sheet_markdown(request: HttpRequest, cook_id: UUID, zone: ZoneName = "") -> HttpResponse:
    """Return a day as a Markdown file."""
    of = planned_of(cook_id, zone, whole=False)
    sheet = _sheet(of)
    lists = _lists(sheet, of.cook.household.preferences.units)
    body = write_markdown(
        sheet.name, sheet.day, sheet.names, find_zone(of.zone), lists, of.cook.household.preferences.temperature
    )
    return _attached(body, "text/markdown; charset=utf-8", sheet.name, "md")


@router.reads("/{uuid:cook_id}/sheet/calendar")
def sheet_calendar(request: HttpRequest, cook_id: UUID, zone: ZoneName = "") -> HttpResponse:
    """Return a day as a calendar file, with an alarm before each step."""
    of = planned_of(cook_id, zone, whole=False)
    return _attached(_calendar(of), "text/calendar; charset=utf-8", of.cook.name, "ics")


def _calendar(of: Planned) -> bytes:
    day, _ = read_day(of.supper)
    names: Mapping[str, str] = {piece.letter: piece.name for piece in of.pieces}
    stamp = timezone.now().replace(microsecond=0)
    return write_calendar(
        of.cook.pk.hex, of.cook.name, day, names, find_zone(of.zone), stamp, of.cook.household.preferences.temperature
    )


class CalendarDocument(Schema):
    """Whether a cook's calendar has an address that other devices read it at."""

    version: Version
    shared: bool


@dataclass(frozen=True, slots=True)
class CalendarOut:
    """The address of a cook's calendar, empty where it has none, and since when a device elsewhere can reach it."""

    id: UUID
    version: int
    address: str
    says: str
    at: datetime


@router.posts("/{uuid:cook_id}/calendar")
def share_calendar(request: HttpRequest, cook_id: UUID, document: CalendarDocument, zone: ZoneName = "") -> CalendarOut:
    """Give a cook's calendar an address that nobody can guess, or take it back: the old one is gone for good."""
    try:
        with transaction.atomic():
            cook = one_cook(cook_id)
            claim_version(cook, document.version)
            cook.calendar_key = token_urlsafe(32) if document.shared else ""
            cook.save(update_fields=["calendar_key"])
    except Stale:
        raise Conflict(read_day_of(cook_id, zone)) from None
    return _calendar_out(request, cook, zone)


@router.reads("/{uuid:cook_id}/calendar")
def read_calendar(request: HttpRequest, cook_id: UUID, zone: ZoneName = "") -> CalendarOut:
    """Return the address of a cook's calendar, where it has one."""
    return _calendar_out(request, one_cook(cook_id), zone)


def _calendar_out(request: HttpRequest, cook: Cook, zone: str) -> CalendarOut:
    address = ""
    if cook.calendar_key:
        clock = f"?zone={quote(zone)}" if zone and not cook.household.preferences.zone else ""
        address = request.build_absolute_uri(f"/api/cooks/calendar/{cook.calendar_key}{clock}")
    host = request.get_host().rsplit(":", 1)[0]
    here = host in ("localhost", "127.0.0.1", "[::1]")
    says = "Whoever has this address can read the day, as long as this Ravska runs."
    if here:
        says = (
            "Only this machine can read it at this address. Start Ravska with RAVSKA_HOSTS and RAVSKA_LISTEN, as the "
            "README says, and open it by the name that phones reach it by."
        )
    return CalendarOut(cook.pk, cook.version, address, says if address else "", timezone.now())


CalendarKey = Annotated[str, Field(min_length=43, max_length=43)]


@router.reads("/calendar/{key}")
def subscribed(request: HttpRequest, key: CalendarKey, zone: ZoneName = "") -> HttpResponse:
    """Return the calendar at its address; there is none where it was taken back."""
    found = Cook.objects.filter(calendar_key=key, deleted_at__isnull=True).exclude(calendar_key="").first()
    if found is None:
        raise Http404
    of = planned_of(found.pk, zone, whole=False)
    return HttpResponse(_calendar(of), content_type="text/calendar; charset=utf-8")
