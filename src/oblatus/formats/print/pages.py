"""From a template to a PDF: our font, our styles, nothing from outside."""

from __future__ import annotations

import io
import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from functools import cache
from pathlib import Path
from threading import Condition
from typing import Any

from cachetools import LRUCache, cached
from jinja2 import Environment, PackageLoader, StrictUndefined
from markupsafe import Markup

from oblatus.core.wanted import check_wanted
from oblatus.core.words import ONE_LINE, Reader, day, decimals, metres, trimmed, worded
from oblatus.units import METRES_PER_YARD

HERE = Path(__file__).parent
PAGES_KEPT = 8
"""Pages by what stands on them, some 0.4 MB each."""


@dataclass(frozen=True, slots=True)
class Printed:
    """A PDF and how many pages it has."""

    content: bytes
    pages: int


def as_pdf(template: str, reader: Reader, styles: str = "page.css", extra: str = "", **values: Any) -> Printed:
    """A template of this folder as PDF, its sentences in the reader's units; `extra` rules come after the styles.

    What a person typed is text in it and never markup; nothing is asked of any network. A page that this process
    set lately is not set again: who has looked at a card's picture prints it next.
    """

    def plain(value: float) -> str:
        return bare(value, reader)

    page = worded(_templates().get_template(template).render(plain=plain, **values), replace(reader, gap=ONE_LINE))
    return _set_page(page, "\n".join((HERE / name).read_text("utf-8") for name in ("fonts.css", styles)) + extra)


@cached(LRUCache(PAGES_KEPT), condition=Condition())
def _set_page(page: str, rules: str) -> Printed:
    from weasyprint import CSS, HTML  # a second that only who prints waits for
    from weasyprint.text.fonts import FontConfiguration
    from weasyprint.urls import URLFetcher

    check_wanted()
    fonts, files, base = FontConfiguration(), URLFetcher(allowed_protocols={"file"}), f"{HERE.as_uri()}/"
    style = CSS(string=rules, base_url=base, font_config=fonts, url_fetcher=files)
    document = HTML(string=page, base_url=base, url_fetcher=files).render(stylesheets=[style], font_config=fonts)
    check_wanted()
    return Printed(document.write_pdf(), len(document.pages))


def as_png(pdf: bytes, dots_per_inch: float) -> bytes:
    """The first page of a PDF as a picture."""
    import pypdfium2

    with pypdfium2.PdfDocument(pdf) as document:
        picture = document[0].render(scale=dots_per_inch / 72.0).to_pil()
    out = io.BytesIO()
    picture.save(out, "PNG")
    return out.getvalue()


def warm_up() -> None:
    """Load what sets pages, so that the first who prints does not wait a second longer than the next."""
    import weasyprint.text.fonts

    weasyprint.text.fonts.FontConfiguration()
    _templates()


@cache
def _templates() -> Environment:
    found = Environment(
        loader=PackageLoader("oblatus.formats", "print"), autoescape=True, undefined=StrictUndefined, trim_blocks=True,
        lstrip_blocks=True,
    )  # fmt: skip
    found.filters |= {
        "number": number, "money": money, "metres": metres, "path": outline_path, "day": day, "moment": moment,
    }  # fmt: skip
    return found


def number(value: float, places: int = 2) -> str:
    """A figure with at most so many decimals, a minus sign where it is negative."""
    return trimmed(value, places)


def bare(value: float, reader: Reader) -> str:
    """A distance [m] as a bare figure in the reader's unit, for a table that names the unit."""
    return decimals(value / (METRES_PER_YARD if reader.distance == "yd" else 1.0))


def moment(at: datetime) -> str:
    """A moment to the minute: 3 Oct 2026, 09:30 UTC. Paper does not know where it is read."""
    there = at.astimezone(UTC)
    return f"{day(there)}, {there:%H:%M} UTC"


def money(value: float) -> str:
    """A price."""
    return f"{value:.2f}"


def outline_path(outline: Sequence[Sequence[float]]) -> Markup:
    """A head's section [mm] as an SVG path, resting on y = 0, y downwards."""
    rest = min(y for _, y in outline)
    if not math.isfinite(rest):
        raise ValueError("the outline is not finite")
    return Markup("M" + "L".join(f"{x:.2f} {rest - y:.2f}" for x, y in outline) + "Z")
