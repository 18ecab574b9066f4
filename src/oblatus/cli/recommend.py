"""`oblatus recommend FILE.json`: the proposal for a fitting document."""

from __future__ import annotations

from argparse import Namespace
from typing import Any

from oblatus.cli.arguments import read_text
from oblatus.formats.fitting import load_fitting
from oblatus.formats.rack import demo_rack
from oblatus.formats.recommendation import RecommendationOut, recommend_document
from oblatus.usecases.engine import engine


def add_recommend(commands: Any) -> None:
    """Register `recommend`."""
    parser = commands.add_parser("recommend", help="the proposal for a fitting document")
    parser.add_argument("file", help="a fitting document, - for standard input")
    parser.add_argument(
        "--bench-rules", action="store_true", help="judge by the bench rules instead of the strike engine"
    )
    parser.add_argument("--json", action="store_true")
    parser.set_defaults(run=run_recommend)


def run_recommend(args: Namespace) -> int:
    """Print the proposal; a document without a rack is judged on the demo rack."""
    document = load_fitting(read_text(args.file))
    result = recommend_document(document, demo_rack(), None if args.bench_rules else engine().judge)
    print(result.model_dump_json() if args.json else _words(result, document.player.name))
    return 0


def _words(result: RecommendationOut, name: str) -> str:
    lines = [f"{name}: {len(result.clubs)} wedges by {result.judge}, engine {result.engine_version}", ""]
    for rung in result.lofts.rungs:
        if rung.swing == "full":
            lines.append(
                f"{rung.club:>15}  carry {rung.carry_m:5.1f} m  apex {rung.apex_m:4.1f} m  "
                f"lands {rung.landing_deg:4.1f} deg  spin {rung.spin_rpm:5.0f} rpm  run {rung.run_m:+4.1f} m"
            )
    lines.append("")
    for club in result.clubs:
        head = club.candidates[0]
        bend = f", bent {head.bend_deg:+g}" if head.bend_deg else ""
        lines.append(f"{club.loft_deg:g} deg, {club.bounce_deg:g} bounce: {head.name} ({head.shape}{bend})")
        lines.append(f"    for {club.duty}")
        lines.append(f"    {club.reason}")
    lines.extend(f"{note.kind}: {note.text}" for note in result.notes)
    if result.unserved:
        lines.append("nobody serves well: " + ", ".join(key.replace("|", " on ") for key in result.unserved[:5]))
    return "\n".join(lines)
