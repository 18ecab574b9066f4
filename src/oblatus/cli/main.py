"""The `oblatus` command."""

from __future__ import annotations

import os
import sys
from collections.abc import Sequence
from importlib import import_module

from oblatus import __version__
from oblatus.cli.arguments import Parser
from oblatus.core.words import worded
from oblatus.errors import InputError, OblatusError

VERBS = {
    ("recommend",): "recommend:add_recommend",
    ("carries",): "carries:add_carries",
    ("ladder",): "carries:add_ladder",
    ("deliver",): "engine:add_deliver",
    ("flight",): "engine:add_flight",
    ("strike", "window"): "strike:add_strike",
    ("strokes",): "strokes:add_strokes",
    ("proof",): "proof:add_proof",
    ("build",): "build:add_build",
    ("card", "setup", "drills"): "card:add_card",
    ("trip",): "trip:add_trip",
    ("bench",): "bench:add_bench",
    ("serve",): "serve:add_serve",
    ("prepare",): "prepare:add_prepare",
    ("import",): "imports:add_import",
    ("simulate",): "simulate:add_simulate",
    ("bridge",): "bridge:add_bridge",
    ("user",): "users:add_user_command",
    ("backup", "restore", "nightly"): "copies:add_copies",
    ("drill",): "drill:add_drill",
    ("export",): "export:add_export",
}
"""Every verb and who registers it: only what is asked for is imported, because most of it takes longer than the work."""

ONE_SUM = {"deliver", "flight"}
"""Verbs whose sum takes plain Python a moment: to fetch the compiled kernels would take longer than all the rest."""


def main(argv: Sequence[str] | None = None) -> int:
    """Run a command; bad input is one line and exit code 2, a failed set-up one line and 1."""
    asked = sys.argv[1:] if argv is None else argv
    if argv is None and asked and asked[0] in ONE_SUM:  # this process does nothing else
        os.environ["NUMBA_DISABLE_JIT"] = "1"
    parser = Parser(prog="oblatus", description="Select, prove and build a player's set of wedges.")
    parser.add_argument("--version", action="version", version=f"oblatus {__version__}")
    commands = parser.add_subparsers(dest="command", required=True, parser_class=Parser)
    mine = [where for verbs, where in VERBS.items() if asked and asked[0] in verbs]
    for where in mine or VERBS.values():
        module, register = where.split(":")
        getattr(import_module(f"oblatus.cli.{module}"), register)(commands)
    try:
        args = parser.parse_args(argv)
        code: int = args.run(args)
        sys.stdout.flush()
    except InputError as error:
        sys.stderr.write(f"oblatus: {worded(error.message)}\n")
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
