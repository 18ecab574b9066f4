"""Bag card and setup card on paper, and the pictures on them."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import combinations

import segno
from markupsafe import Markup

from oblatus.core.constants import BALL_RADIUS
from oblatus.core.geometry import Hand
from oblatus.core.words import Reader, speed, trimmed, worded
from oblatus.errors import Fault, InputError
from oblatus.formats.card import BASIS, CardOut, LieCardOut
from oblatus.formats.print.pages import Printed, as_pdf, outline_path
from oblatus.formats.sections.after import CARD_PARTS, CardPart

PAPER = {
    "pocket": ("171.2mm 53.98mm", "3mm 4mm", 1), "a6": ("A6", "5mm", 1), "a4": ("A4", "14mm", 2),
    "letter": ("letter", "14mm", 2),
}  # fmt: skip
"""Size, margin, and how many pages a bag card may have. A pocket card is folded in its middle, each half ID-1 of
ISO/IEC 7810."""
GREY = "* { color: #000 !important; border-color: #777 !important; }"


def bag_card_pdf(
    card: CardOut, size: str, parts: Sequence[CardPart], reader: Reader, *, grey: bool = False, link: str | None = None
) -> Printed:
    """The bag card on its paper; nothing on it is smaller than 6.5 pt. `link` stands on it as a QR code (ISO/IEC 18004),
    but on a pocket card, where a camera would not read it.

    Raises
    ------
    InputError
        If it does not fit, with what to leave out.
    """
    found = _bag(card, size, parts, reader, link, grey=grey)
    most = PAPER[size][2]
    if found.pages <= most:
        return found
    for count in range(1, len(parts)):
        for out in combinations([part for part in CARD_PARTS if part in parts], count):
            left = [part for part in parts if part not in out]
            if _bag(card, size, left, reader, link, grey=grey).pages <= most:
                words = " and ".join(CARD_PARTS[part] for part in out)
                raise _too_long(f"leave out {words}, or take larger paper")
    raise _too_long("take larger paper")


def _too_long(words: str) -> InputError:
    return InputError([Fault("card.parts", f"does not fit on this paper: {words}", name="The card")])


def _bag(card: CardOut, size: str, parts: Sequence[CardPart], reader: Reader, link: str | None, *, grey: bool) -> Printed:
    paper, margin, _ = PAPER[size]
    extra = f"@page {{ size: {paper}; margin: {margin}; }}"
    if size == "a6":
        extra += " body { font-size: 7pt; }"
    if size == "pocket":
        extra += " body { font-size: 6.5pt; line-height: 1.12; } h1 { font-size: 8pt; }"
        extra += " td, th { padding: 0 0.6mm 0 0; } .halves { gap: 8mm; }"
    names = [f"{trimmed(row.loft_deg)}° {row.swing_name}" for row in card.rows]
    return as_pdf(
        "bag_card.html", reader, "card.css", extra + (GREY if grey else ""), card=card, parts=parts, names=names,
        unit=reader.distance, into=worded(speed(4.0, 0), reader), folded=size == "pocket",
        code=None if link is None or size == "pocket" else qr(link), basis=BASIS[card.basis],
    )  # fmt: skip


def setup_card_pdf(card: CardOut, size: str, reader: Reader, *, grey: bool = False) -> Printed:
    """How to play each lie, on A4, letter or A6 pages."""
    paper, margin, _ = PAPER["a6" if size == "pocket" else size]
    extra = f"@page {{ size: {paper}; margin: {margin}; }}" + (GREY if grey else "")
    return as_pdf(
        "setup_card.html", reader, "card.css", extra, card=card,
        club_at_ball=lambda lie: club_at_ball(lie, card.outlines_mm[lie.code]), stance=lambda lie: stance(lie, card.hand),
        beside=2 if size in {"a4", "letter"} else 1,
    )  # fmt: skip


def qr(link: str) -> Markup:
    """A link as a QR code."""
    return Markup(segno.make(link, error="m", micro=False).svg_inline(border=2, dark="#000", light="#fff", omitsize=True))


def stance(lie: LieCardOut, hand: Hand) -> Markup:
    """Ball, feet and line to the target from above, in centimetres, target at the right: a right-hander, who has it at
    their left hand, stands above the line and faces down the picture, a left-hander below it.
    """
    side = -1.0 if hand == "right" else 1.0
    ball, half, feet = lie.ball_mm / 10.0, lie.stance_mm / 20.0, side * 38.0
    trail, lead, top = -half - 9.5, half + 0.5, feet - 12.0
    ink = 'stroke="#17211d" stroke-width="0.7"'
    foot = 'width="9" height="24" rx="4.5"'
    return Markup(
        f'<svg viewBox="-45 {min(feet, 0.0) - 14:.0f} 90 66" role="img" aria-label="stance from above">'
        f'<path d="M-42 0H38M32 -3L38 0L32 3" fill="none" {ink}/>'
        f'<circle cx="{ball:.1f}" cy="0" r="2.6" fill="#fff" {ink}/>'
        f'<path d="M0 {side * 6:.0f}V{feet - side * 14:.0f}" stroke="#b98900" stroke-width="0.7"'
        ' stroke-dasharray="2 1.5"/>'
        f'<g transform="rotate({-lie.stance_open_deg:.1f} 0 {feet:.0f})">'
        f'<rect x="{trail:.1f}" y="{top:.0f}" {foot} fill="#dfe5e1" {ink}/>'
        f'<rect x="{lead:.1f}" y="{top:.0f}" {foot} fill="#17211d"/></g></svg>'
    )


def club_at_ball(lie: LieCardOut, outline: Sequence[Sequence[float]]) -> Markup:
    """The club's section at the ball from the side, leaned as it is to be, in millimetres; the target is at the right."""
    lean, ball, shaft = lie.lean_deg, 1000.0 * BALL_RADIUS.value, 44.0
    ahead, up = shaft * math.sin(math.radians(lean)), shaft * math.cos(math.radians(lean))
    head = f'<path d="{outline_path(outline)}" fill="#c9d0d2" stroke="#3c474b" stroke-width="0.7"/>'
    return Markup(
        f'<svg viewBox="-40 -48 90 54" role="img" aria-label="the club at the ball, {lean:.0f} degrees of lean">'
        '<path d="M-40 0H50" stroke="#4d6b3c" stroke-width="1" fill="none"/>'
        f'<g transform="rotate({lean:.1f})">{head}</g>'
        f'<path d="M-14 -8l{ahead:.1f} {-up:.1f}" stroke="#17211d" stroke-width="1.4"/>'
        f'<circle cx="{ball + 2:.1f}" cy="{-ball:.1f}" r="{ball:.1f}" fill="#fff" stroke="#17211d" stroke-width="0.8"/>'
        "</svg>"
    )
