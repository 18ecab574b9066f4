"""The build sheet on paper and as CSV."""

from __future__ import annotations

import csv
import io
from datetime import date

from oblatus.core.build.parts import GRIPS, SHAFTS
from oblatus.core.words import SI, Reader, counted, day, worded
from oblatus.formats.build import BuildOut, OrderOut
from oblatus.formats.print.pages import as_pdf, number
from oblatus.formats.strikes_csv import safe_text

ACTIONS = {"keep": "keep", "bend": "bend", "grind": "grind", "replace": "new"}
UNITS = {"degrees": "°", "points": "\u00a0point", "in": "\u00a0in", "g": "\u00a0g", "": ""}
READ_WORDS = {"loft_deg": "Loft °", "lie_deg": "Lie °", "swing_weight_points": "Swing weight, points from D0"}
CSV_HEADER = ("club", "what", "work or figure", "wanted", "tolerance", "unit", "read", "outside", "done by", "done at")


def build_pdf(sheet: BuildOut, player: str, studio: str, on: date, reader: Reader) -> bytes:
    """The sheet as PDF on A4: clubs, work with boxes to tick, readings, quote, a line to sign."""
    order = sheet.order
    return as_pdf(
        "build.html", reader, sheet=sheet, player=player, studio=studio, on=on, order=order,
        order_words=_order_words(order) if order else "", said=_said(sheet), actions=ACTIONS, units=UNITS,
        ticks={(one.club, one.operation): one for one in order.ticks} if order else {},
        shafts={s.code: f"{s.name} {s.flex}" for s in SHAFTS}, grips={g.code: g.name for g in GRIPS},
        read_words=READ_WORDS,
    ).content  # fmt: skip


def _order_words(order: OrderOut) -> str:
    if order.state == "open":
        return f"at the bench since {day(order.made_at)}, given by {order.made_by}"
    return f"{'signed' if order.state == 'built' else 'cancelled'} by {order.ended_by}"


def _said(sheet: BuildOut) -> list[str]:
    """What the sheet is worth and when it is done."""
    weeks = f"Ready in {counted(sheet.weeks, 'week')}." if sheet.weeks else ""
    found = [weeks, *sheet.changed]
    if sheet.order is not None:
        found += sheet.order.changed
    if sheet.strokes_round is not None and sheet.proposal_strokes_round is not None:
        found.append(_costs("Built so it", sheet.strokes_round - sheet.proposal_strokes_round, "the proposal"))
    if sheet.as_built_strokes_round is not None and sheet.strokes_round is not None:
        found.append(_costs("As it was read it", sheet.as_built_strokes_round - sheet.strokes_round, "the sheet"))
    return [line for line in found if line]


def _costs(what: str, more: float, than: str) -> str:
    if abs(more) < 0.005:
        return f"{what} is worth what {than} says."
    return f"{what} costs {abs(more):.2f} strokes a round {'more' if more > 0 else 'less'} than {than}."


def build_csv(sheet: BuildOut) -> str:
    """The sheet as rows: every piece of work, every reading, parts and quote; SI and the bench's units as named."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(CSV_HEADER)
    ticks = {(one.club, one.operation): one for one in sheet.order.ticks} if sheet.order else {}
    for n, club in enumerate(sheet.clubs):
        name = safe_text(club.name)
        for m, one in enumerate(club.operations):
            tick = ticks.get((n, m))
            done = ("", "") if tick is None else (safe_text(tick.by), tick.at.isoformat())
            writer.writerow([name, "work", one.words, _cell(one.wanted), _cell(one.tolerance), one.unit, "", "", *done])
        for read in club.as_built:
            unit = "points" if read.key == "swing_weight_points" else "degrees"
            row = [name, "read", read.key, _cell(read.wanted), "", unit, _cell(read.read), _cell(read.over), "", ""]
            writer.writerow(row)
        for words, value, unit in (
            ("labour", club.labour, ""),
            ("parts", club.parts, ""),
            ("ready in", club.weeks, "weeks"),
        ):
            writer.writerow([name, "quote", words, _cell(value), "", unit, "", "", "", ""])
    for words, value in (("labour", sheet.labour), ("parts", sheet.parts), ("tax", sheet.tax), ("total", sheet.total)):
        writer.writerow(["", "quote", words, _cell(value), "", "", "", "", "", ""])
    return worded(out.getvalue(), SI)


def _cell(value: float | None) -> str:
    return "" if value is None else number(value).replace("−", "-")
