"""`oblatus drill`: break everything in a throw-away folder, and count what was lost."""

from __future__ import annotations

from argparse import Namespace
from typing import Any

from oblatus.cli.arguments import number
from oblatus.core.bounds import Bound
from oblatus.drill.drill import Count, run_drill


def add_drill(commands: Any) -> None:
    """Register `drill`."""
    parser = commands.add_parser("drill", help="the fault drills on a throw-away data folder, with their counts")
    parser.add_argument("--strikes", type=number("strikes", Bound(20, 20_000, "")), default=1000.0)
    parser.add_argument("--edits", type=number("edits", Bound(0, 20_000, "")), default=200.0)
    parser.add_argument(
        "--offline", type=number("offline", Bound(0, 600, "s")), default=60.0, help="seconds without an answer"
    )
    parser.set_defaults(run=run_drills)


def run_drills(args: Namespace) -> int:
    """Run and print; exit code 1 if anything was lost, doubled, overwritten or said that is not so."""
    count = run_drill(
        lambda words: print(words, flush=True),
        strikes=int(args.strikes), edits=int(args.edits), offline_seconds=args.offline,
    )  # fmt: skip
    print(report(count))
    return 0 if count.clean else 1


def report(count: Count) -> str:
    """The counts as lines."""
    retries = ", ".join(f"{reason} {times}" for reason, times in sorted(count.retries.items())) or "none"
    lines = [
        f"strikes sent {count.strikes:,}, of the device {count.device_strikes:,}, edits {count.edits:,}",
        f"faults: {', '.join(count.faults)}",
        f"sent again because of: {retries}; conflicts told {count.conflicts_told}",
        f"lost {count.lost}  doubled {count.doubled}  overwritten {count.overwritten}  "
        f'untrue "saved" {count.untrue_saved}',
        *count.notes,
    ]
    return "\n".join(lines)
