"""Arguments with bounds, and answers as text or JSON."""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Callable, Mapping
from pathlib import Path
from typing import Any, NoReturn

from oblatus.core.bounds import Bound, check
from oblatus.core.words import worded
from oblatus.errors import fault


class Parser(argparse.ArgumentParser):
    """A parser whose errors are one line and exit code 2."""

    def error(self, message: str) -> NoReturn:
        """Say what was wrong in one line."""
        sys.stderr.write(f"oblatus: {message}\n")
        raise SystemExit(2)


def number(field: str, bound: Bound) -> Callable[[str], float]:
    """An argument type: a finite number in `bound`, or an `InputError` that names field, value and bounds."""

    def parse(text: str) -> float:
        try:
            value = float(text)
        except ValueError:
            raise fault(field, f"must be a number; {bound.words()}", text) from None
        return check(field, value, bound)

    return parse


def read_text(path: str) -> str:
    """Text of a file, or of standard input for `-`.

    Raises
    ------
    InputError
        If the file cannot be read or is not UTF-8.
    """
    try:
        return sys.stdin.read() if path == "-" else Path(path).read_text(encoding="utf-8")
    except OSError as error:
        raise fault("file", error.strerror or "cannot be read", path) from error
    except UnicodeDecodeError as error:
        raise fault("file", "is not UTF-8 text", path) from error


def say(text: str) -> None:
    """Print sentences, their quantities in SI."""
    print(worded(text))


def show(values: Mapping[str, Any], as_json: bool) -> None:
    """Print an answer: JSON, or a line a value."""
    if as_json:
        print(json.dumps(values, ensure_ascii=False, allow_nan=False))
        return
    width = max(len(key) for key in values)
    for key, value in values.items():
        print(f"{key:<{width}}  {value:g}" if isinstance(value, float) else f"{key:<{width}}  {value}")
