"""The `oblatus` command."""

from __future__ import annotations

import os
import sys
from collections.abc import Sequence

from oblatus import __version__
from oblatus.cli.arguments import Parser
from oblatus.cli.bench import add_bench
from oblatus.cli.carries import add_carries, add_ladder
from oblatus.cli.copies import add_copies
from oblatus.cli.devices import add_bridge, add_simulate
from oblatus.cli.drill import add_drill
from oblatus.cli.engine import add_deliver, add_flight
from oblatus.cli.export import add_export
from oblatus.cli.imports import add_import
from oblatus.cli.recommend import add_recommend
from oblatus.cli.serve import add_serve
from oblatus.cli.strike import add_strike
from oblatus.cli.strokes import add_strokes
from oblatus.cli.users import add_user_command
from oblatus.errors import InputError, OblatusError


def main(argv: Sequence[str] | None = None) -> int:
    """Run a command; bad input is one line and exit code 2, a failed set-up one line and 1."""
    parser = Parser(prog="oblatus", description="Select, prove and build a player's set of wedges.")
    parser.add_argument("--version", action="version", version=f"oblatus {__version__}")
    commands = parser.add_subparsers(dest="command", required=True, parser_class=Parser)
    for add in (
        add_recommend,
        add_carries,
        add_ladder,
        add_deliver,
        add_flight,
        add_strike,
        add_strokes,
        add_bench,
        add_serve,
        add_import,
        add_simulate,
        add_bridge,
        add_user_command,
        add_copies,
        add_drill,
        add_export,
    ):
        add(commands)
    try:
        args = parser.parse_args(argv)
        code: int = args.run(args)
        sys.stdout.flush()
    except InputError as error:
        sys.stderr.write(f"oblatus: {error.message}\n")
        return 2
    except OblatusError as error:
        sys.stderr.write(f"oblatus: {error.message}\n")
        return 1
    except BrokenPipeError:
        # the reader has seen enough, as `oblatus ... | head` does; nothing is left to say to it
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 0
    return code


if __name__ == "__main__":
    raise SystemExit(main())
