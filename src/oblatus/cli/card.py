"""`oblatus card`, `setup` and `drills`: what the player of a fitting document takes home."""

from __future__ import annotations

from argparse import Namespace
from datetime import date
from pathlib import Path
from typing import Any

from oblatus.cli.arguments import read_text, say
from oblatus.core.fitting.proposal import propose
from oblatus.core.words import SI, worded
from oblatus.formats.card import EVERY, CardOut, card_csv
from oblatus.formats.convert import fitting_from
from oblatus.formats.demo import demo_rack
from oblatus.formats.fitting import load_fitting
from oblatus.formats.print.cards import bag_card_pdf, setup_card_pdf
from oblatus.formats.proposal_out import recommendation_out
from oblatus.formats.sections.after import CardDocument
from oblatus.usecases.card_of import card_of
from oblatus.usecases.engine import engine


def add_card(commands: Any) -> None:
    """Register `card`, `setup` and `drills`."""
    for name, words, run in (
        ("card", "clubs, carries and distances of a fitting document", run_card),
        ("setup", "how its player is to play each lie", run_setup),
        ("drills", "what its player is to practise", run_drills),
    ):
        parser = commands.add_parser(name, help=words)
        parser.add_argument("file", help="a fitting document, - for standard input")
        parser.add_argument("--json", action="store_true")
        if name != "drills":
            parser.add_argument("--pdf", type=Path, metavar="FILE", help="write it as PDF too, on the document's paper")
        parser.set_defaults(run=run)


def run_card(args: Namespace) -> int:
    """Print the bag card."""
    card, chosen = _card(args)
    if args.pdf is not None:
        args.pdf.write_bytes(bag_card_pdf(card, chosen.size, chosen.parts, SI, grey=chosen.grey).content)
    text = card_csv(card, SI).replace("\r\n", "\n").rstrip()
    say(worded(card.model_dump_json(exclude={"lies", "drills"})) if args.json else text)
    return 0


def run_setup(args: Namespace) -> int:
    """Print how to play each lie."""
    card, chosen = _card(args)
    if args.pdf is not None:
        args.pdf.write_bytes(setup_card_pdf(card, chosen.size, SI, grey=chosen.grey).content)
    if args.json:
        say(worded(card.model_dump_json(include={"player", "hand", "made_on", "basis", "lies"})))
        return 0
    for lie in card.lies:
        say(
            f"{lie.shot_name}, {lie.ground}: {lie.loft_deg:g} deg {lie.club}, "
            f"opened {lie.opening_deg:.0f}, ball {lie.ball_words}, {lie.lean_words}, "
            f"{100 * lie.weight:.0f} % forward, {lie.clock}, lands at {lie.carry_m:.0f} m, {lie.light}"
        )
    return 0


def run_drills(args: Namespace) -> int:
    """Print the drills."""
    card, _ = _card(args)
    if args.json:
        say(worded(card.model_dump_json(include={"player", "drills"})))
        return 0
    for drill in card.drills:
        say(worded(f"{drill.name}: {drill.why}; worth {drill.worth_strokes_round:.2f} strokes a round"))
        say(f"  {drill.set_up} {drill.do} Pass {drill.mark} of {drill.count}. {drill.stop}")
    return 0


def _card(args: Namespace) -> tuple[CardOut, CardDocument]:
    document = load_fitting(read_text(args.file))
    fitting, judge = fitting_from(document, demo_rack()), engine().judge
    proposal = recommendation_out(propose(fitting, judge))
    return card_of(document, fitting, proposal, judge, EVERY["m"], date.today(), {}), document.card
