"""`oblatus bench`: what it costs, measured in one run, with ratios."""

from __future__ import annotations

from argparse import Namespace
from typing import Any


def add_bench(commands: Any) -> None:
    """Register `bench`."""
    parser = commands.add_parser("bench", help="measure the engine and the round trip of an edit")
    parser.add_argument("--json", action="store_true")
    parser.set_defaults(run=run_bench)


def run_bench(args: Namespace) -> int:
    """Run every measurement and print it."""
    raise NotImplementedError
