"""`oblatus recommend FILE.json`: the proposal for a fitting document."""

from __future__ import annotations

from argparse import Namespace
from typing import Any

from oblatus.cli.arguments import read_text, say
from oblatus.core.fitting.proposal import propose
from oblatus.formats.convert import fitting_from
from oblatus.formats.demo import demo_rack
from oblatus.formats.fitting import load_fitting
from oblatus.formats.proposal_out import recommendation_out
from oblatus.formats.recommendation import RecommendationOut
from oblatus.usecases.engine import engine


def add_recommend(commands: Any) -> None:
    """Register `recommend`."""
    parser = commands.add_parser("recommend", help="the proposal for a fitting document")
    parser.add_argument("file", help="a fitting document, - for standard input")
    parser.add_argument("--json", action="store_true")
    parser.set_defaults(run=run_recommend)


def run_recommend(args: Namespace) -> int:
    """Print the proposal; a document without a rack is judged on the demo rack."""
    document = load_fitting(read_text(args.file))
    result = recommendation_out(propose(fitting_from(document, demo_rack()), engine().judge, laws=True))
    say(result.model_dump_json() if args.json else _words(result, document.player.name))
    return 0


def _words(result: RecommendationOut, name: str) -> str:
    lines = [f"{name}, engine {result.engine_version}: {result.verdict}", result.practice, ""]
    for n, step in enumerate(result.steps):
        mark = "*" if n == result.recommended_step else " "
        doubt = "" if n == 0 or step.low is None else (
            f"  8 of 10: {step.low:+.2f} to {step.high:+.2f}, better in {100 * (step.better_share or 0.0):.0f} of 100"
        )  # fmt: skip
        price = f"  price {step.price:g}" if step.price else ""
        lines.append(f"{mark} {step.heads_bought} bought  {step.gain_strokes_round:+.2f}{doubt}{price}  {step.words}")
    lines.append("")
    for club in result.clubs:
        bend = f", bent {club.bend_deg:+g}" if club.bend_deg else ""
        place = f" for {club.replaces}" if club.replaces and club.replaces != club.name else ""
        lines.append(
            f"{club.loft_deg:g} deg, {club.bounce_deg:g} bounce: {club.name}{bend}{place}, "
            f"brings {club.brings_strokes_round:.2f}"
        )
        lines.append(f"    {club.reason}")
    lines.append(result.first_because)
    lines.extend(
        f"{leak.name}: {leak.strokes_round:.2f} a round, a club could win {leak.club_part:.2f}, "
        f"yours {leak.player_part:.2f}{f' ({leak.drill})' if leak.drill else ''}"
        for leak in result.leaks[:8]
    )
    lines.extend(f"{note.kind}: {note.text}" for note in result.notes)
    return "\n".join(line for line in lines)
