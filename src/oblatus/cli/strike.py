"""`oblatus strike FILE` and `oblatus window FILE`: the strike engine from a shell."""

from __future__ import annotations

import json
from argparse import Namespace
from typing import Any

from oblatus.cli.arguments import read_text
from oblatus.core.strike import PRODUCTION, REFERENCE, strike, strike_window
from oblatus.core.strike.single import extrapolated
from oblatus.formats.convert import head_from
from oblatus.formats.strike import StrikeIn, load_strikes, path_out, strike_out, window_out


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
    answers = [_window(item) for item in items]
    print(json.dumps(answers if many else answers[0], allow_nan=False))
    return 0


def _strike(item: StrikeIn, *, reference: bool, trace: bool) -> dict[str, Any]:
    mesh = REFERENCE if reference else PRODUCTION
    head = head_from(item.club)
    result = strike(head, item.swing(), item.ground.ground(), mesh=mesh, intended=item.intended_carry_m)
    answer = strike_out(result).model_dump()
    if trace:
        answer["path"] = path_out(result)
    return answer


def _window(item: StrikeIn) -> dict[str, Any]:
    head, swing = head_from(item.club), item.swing()
    return window_out(strike_window(head, swing, item.ground.ground()), extrapolated(head, swing)).model_dump()
