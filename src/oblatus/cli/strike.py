"""`oblatus strike FILE` and `oblatus window FILE`: the strike engine from a shell."""

from __future__ import annotations

import json
from argparse import Namespace
from typing import Any

from oblatus.cli.arguments import read_text
from oblatus.core.strike.single import extrapolated
from oblatus.formats.convert import head_from
from oblatus.formats.strike import StrikeIn, load_strikes, path_out, run_strike, run_window, strike_out, window_out


def add_strike(commands: Any) -> None:
    """Register `strike` and `window`."""
    parser = commands.add_parser("strike", help="one pass of a sole through turf or sand, for each strike of a file")
    parser.add_argument("file", help="a strike or a list of them as JSON, - for standard input")
    parser.add_argument("--reference", action="store_true", help="the fine mesh")
    parser.add_argument("--trace", action="store_true", help="with the edge's path")
    parser.add_argument("--json", action="store_true", help="JSON is the only output; accepted for symmetry")
    parser.set_defaults(run=run_strike_command)
    window = commands.add_parser("window", help="the strike window, for each strike of a file")
    window.add_argument("file", help="a strike or a list of them as JSON, - for standard input")
    window.add_argument("--json", action="store_true", help="JSON is the only output; accepted for symmetry")
    window.set_defaults(run=run_window_command)


def run_strike_command(args: Namespace) -> int:
    """Print what every strike did."""
    items, many = load_strikes(read_text(args.file))
    answers = [_strike(item, reference=args.reference, trace=args.trace) for item in items]
    print(json.dumps(answers if many else answers[0], allow_nan=False))
    return 0


def run_window_command(args: Namespace) -> int:
    """Print every window."""
    items, many = load_strikes(read_text(args.file))
    answers = [window_out(run_window(i), extrapolated(head_from(i.club), i.swing())).model_dump() for i in items]
    print(json.dumps(answers if many else answers[0], allow_nan=False))
    return 0


def _strike(item: StrikeIn, *, reference: bool, trace: bool) -> dict[str, Any]:
    result = run_strike(item, reference=reference)
    answer = strike_out(result).model_dump()
    if trace:
        answer["path"] = path_out(result)
    return answer
