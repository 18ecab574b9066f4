"""A figure of the job: its one record, on the engine's own field. Documents, tables, CSV, the shell and forms read it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import Field, dataclass, field, fields, replace
from functools import cache
from types import MappingProxyType
from typing import Any, Literal

from oblatus.core.bounds import Bound, check_all

Where = Literal["first", "more", "none"]
RECORD = "figure"
PLACES_KEPT = 9
"""Decimals of a figure on its way to a document: what a change of unit leaves behind them is no information."""


@dataclass(frozen=True, slots=True)
class Figure:
    """One figure as it is typed, kept and shown.

    Parameters
    ----------
    key : name in documents, with its unit
    words : name on a screen, short
    bound : range and unit of what is typed
    usual : what stands where nothing is known, in the bound's unit; None where it has to be given
    per : how many of the document's unit make one of the engine's: 1000 for mm against m
    percent : whether a share is shown in per cent
    places : decimals shown
    where : in a form at once, under "more", or not at all
    short : name at the head of a column, None where no table has it
    flag : name in the shell, None where no verb takes it
    attribute : the engine's field, filled in by `figures`
    """

    key: str
    words: str
    bound: Bound
    usual: float | None
    per: float = 1.0
    percent: bool = False
    places: int = 1
    where: Where = "first"
    short: str | None = None
    flag: str | None = None
    attribute: str = ""


def figure(
    key: str,
    words: str,
    bound: Bound,
    usual: float | None = None,
    *,
    per: float = 1.0,
    percent: bool = False,
    places: int = 1,
    where: Where = "first",
    short: str | None = None,
    flag: str | None = None,
    optional: bool = False,
) -> Any:
    """A dataclass field that carries its record; see `Figure`. Without `usual` it has to be given, unless `optional`."""
    bound = replace(bound, percent=percent)
    record = Figure(key, words, bound, usual, per, percent, places, where, short, flag)
    if optional:
        return field(default=None, metadata={RECORD: record})
    if usual is None:
        return field(metadata={RECORD: record})
    return field(default=usual / per, metadata={RECORD: record})


@cache
def figures(kind: type) -> Mapping[str, Figure]:
    """The figures of a dataclass by their keys, in its order."""
    found = {}
    for one in fields(kind):
        record = _record(one)
        if record is not None:
            found[record.key] = record
    return MappingProxyType(found)


def check_figures(thing: Any) -> None:
    """Check every figure of a dataclass against its range; a figure that is None is not known.

    Raises
    ------
    InputError
        With one fault for each value outside its range, named by its key.
    """
    known = figures(thing.__class__)
    values = {key: getattr(thing, record.attribute) for key, record in known.items()}
    check_all(
        {key: value * known[key].per for key, value in values.items() if value is not None},
        {key: record.bound for key, record in known.items()},
    )


def in_document(thing: Any) -> dict[str, float]:
    """The figures of a dataclass by their keys, in the document's units."""
    known = figures(thing.__class__).items()
    return {key: round(getattr(thing, f.attribute) * f.per, PLACES_KEPT) for key, f in known}


def in_engine(kind: type, document: Any) -> dict[str, float]:
    """What the engine's dataclass takes, from an object that has its keys as attributes."""
    return {f.attribute: getattr(document, key) / f.per for key, f in figures(kind).items() if hasattr(document, key)}


def _record(one: Field[Any]) -> Figure | None:
    record = one.metadata.get(RECORD)
    if record is None:
        return None
    return Figure(**{name: getattr(record, name) for name in Figure.__slots__} | {"attribute": one.name})
