"""`oblatus user`: fitters of the studio, from the machine that serves."""

from __future__ import annotations

import sys
from argparse import Namespace
from getpass import getpass
from pathlib import Path
from typing import Any

from oblatus.cli.folder import database_in
from oblatus.errors import SetUpError
from oblatus.settings import PROJECT, Settings
from oblatus.store.server import secret_in
from oblatus.usecases.users import NewFitter, add_user, list_users, remove_user, set_password


def add_user_command(commands: Any) -> None:
    """Register `user`."""
    parser = commands.add_parser("user", help="fitters: add, list, password, remove")
    verbs = parser.add_subparsers(dest="verb", required=True, parser_class=type(parser))
    for verb, words in (
        ("add", "a fitter"),
        ("list", "all fitters"),
        ("password", "another password"),
        ("remove", "a fitter"),
    ):
        one = verbs.add_parser(verb, help=words)
        one.add_argument("--data", type=Path, default=PROJECT / "var")
        if verb != "list":
            one.add_argument("address", help="the fitter's e-mail address")
        if verb == "add":
            one.add_argument("--name", required=True)
            one.add_argument("--studio", help="a studio's name; made if there is none of that name")
        one.set_defaults(run=run_user)


def run_user(args: Namespace) -> int:
    """Do what was asked; a password is read from the terminal, or from the first line of standard input."""
    folder: Path = args.data.resolve()
    with database_in(folder) as (_, database):
        settings = Settings("postgresql+psycopg://", secret_in(folder / "secret"))
        if args.verb == "list":
            for fitter, studio in list_users(database):
                print(f"{fitter.email}\t{fitter.name}\t{studio.name}" + ("\tdemo password" if fitter.demo else ""))
        elif args.verb == "add":
            fitter = add_user(database, settings, NewFitter(args.name, args.address, new_password()), args.studio)
            print(f"added {fitter.email}")
        elif args.verb == "password":
            set_password(database, settings, args.address, new_password())
            print(f"another password for {args.address}; every session ended")
        else:
            remove_user(database, args.address)
            print(f"removed {args.address}")
    return 0


def ask_fitter() -> NewFitter:
    """The first fitter's name, address and password, from the terminal or three lines of standard input.

    Raises
    ------
    SetUpError
        If nobody answers.
    InputError
        If an answer will not do.
    """
    print("No fitter yet. Who will sign in?", flush=True)
    name, email = _line("Name: "), _line("E-mail address: ")
    return NewFitter(name, email, new_password()).checked()


def new_password() -> str:
    """A password, typed twice at a terminal."""
    if not sys.stdin.isatty():
        return _line("Password: ")
    first = getpass("Password (10 characters or more): ")
    if getpass("Once more: ") != first:
        raise SetUpError("the two were not the same; nothing was changed")
    return first


def _line(question: str) -> str:
    try:
        return input(question if sys.stdin.isatty() else "")
    except EOFError:
        raise SetUpError(
            f"{question.rstrip(': ').lower()} is missing: answer at a terminal, or give name, address and password as "
            "three lines of standard input"
        ) from None
