"""Two people's edits of one document, field by field: what only one changed is merged, what both changed is told.

Works on plain JSON values. Lists of equal length are compared place by place; lists of another length by what tells their
entries apart (a code, key, id or name); all other lists as one value.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field
from typing import Any

TOLD_BY = ("code", "key", "id", "name")
MISSING = object()
"""Stands for a field or entry that is not there."""


@dataclass(frozen=True, slots=True)
class Conflict:
    """A field that both changed: its dotted path in the editor's own document, and the three values."""

    path: str
    base: Any
    mine: Any
    theirs: Any


@dataclass(slots=True)
class Merged:
    """`value`: theirs with my changes, those in conflict left out. `draft`: the same with mine instead."""

    value: Any
    draft: Any
    conflicts: list[Conflict] = field(default_factory=list)


def merge(base: Any, mine: Any, theirs: Any, settled: Mapping[str, Any] | None = None) -> Merged:
    """Merge my edits (base to mine) into theirs (base to theirs).

    `settled` names conflicts in which mine was chosen, each with the value of theirs that was seen: should it have
    changed again, it is a conflict again.
    """
    found = Merged(None, None)
    settled = settled or {}

    def choose(path: str, b: Any, m: Any, t: Any) -> tuple[Any, Any]:
        if path in settled and settled[path] == (None if t is MISSING else t):
            return m, m
        found.conflicts.append(Conflict(path, *(None if v is MISSING else v for v in (b, m, t))))
        return t, m

    found.value, found.draft = _merge("", base, mine, theirs, choose)
    return found


Choose = Callable[[str, Any, Any, Any], tuple[Any, Any]]


def _merge(path: str, base: Any, mine: Any, theirs: Any, choose: Choose) -> tuple[Any, Any]:
    if same(mine, theirs) or same(mine, base):
        return theirs, theirs
    if same(theirs, base):
        return mine, mine
    three = (base, mine, theirs)
    if all(isinstance(v, dict) for v in three):
        return _merge_fields(path, base, mine, theirs, choose)
    if all(isinstance(v, list) for v in three):
        if len(base) == len(mine) == len(theirs) and all(isinstance(v, (dict, list)) for v in theirs):
            pairs = [_merge(_at(path, i), base[i], mine[i], theirs[i], choose) for i in range(len(mine))]
            return [pair[0] for pair in pairs], [pair[1] for pair in pairs]
        told_by = next((key for key in TOLD_BY if all(_tells_apart(v, key) for v in three)), None)
        if told_by is not None:
            return _merge_entries(path, told_by, base, mine, theirs, choose)
    return choose(path, base, mine, theirs)


def _merge_fields(path: str, base: Any, mine: Any, theirs: Any, choose: Choose) -> tuple[Any, Any]:
    value, draft = {}, {}
    for key in [*theirs, *(key for key in mine if key not in theirs)]:
        b, m, t = (v.get(key, MISSING) for v in (base, mine, theirs))
        one, other = _merge(_at(path, key), b, m, t, choose)
        if one is not MISSING:
            value[key] = one
        if other is not MISSING:
            draft[key] = other
    return value, draft


def _merge_entries(path: str, told_by: str, base: Any, mine: Any, theirs: Any, choose: Choose) -> tuple[Any, Any]:
    """Entries by what tells them apart, in the order of theirs, mine added at the end."""
    b, m, t = ({entry[told_by]: entry for entry in v} for v in (base, mine, theirs))
    place = {entry[told_by]: i for i, entry in enumerate(mine)}
    value, draft = [], []
    for key in [*t, *(key for key in m if key not in t)]:
        was, is_mine, is_theirs = (v.get(key, MISSING) for v in (b, m, t))
        if key in place or was is MISSING or same(was, is_theirs):
            one, other = _merge(_at(path, place.get(key, 0)), was, is_mine, is_theirs, choose)
        else:  # I took it out, they changed it: the whole list is the question
            return choose(path, base, mine, theirs)
        value += [] if one is MISSING else [one]
        draft += [] if other is MISSING else [other]
    return value, draft


def changed_paths(before: Any, after: Any, path: str = "") -> Iterator[str]:
    """Dotted paths of the fields that differ, as deep as both have the same shape."""
    if same(before, after):
        return
    if isinstance(before, dict) and isinstance(after, dict):
        for key in [*after, *(key for key in before if key not in after)]:
            yield from changed_paths(before.get(key, MISSING), after.get(key, MISSING), _at(path, key))
    elif isinstance(before, list) and isinstance(after, list) and len(before) == len(after) and before:
        for i, (one, other) in enumerate(zip(before, after, strict=True)):
            yield from changed_paths(one, other, _at(path, i))
    else:
        yield path


def value_at(value: Any, path: str) -> Any:
    """What stands at a dotted path; MISSING if nothing does."""
    for step in path.split("."):
        if isinstance(value, dict):
            value = value.get(step, MISSING)
        elif isinstance(value, list) and step.isdigit() and int(step) < len(value):
            value = value[int(step)]
        else:
            return MISSING
    return value


def put_back(value: Any, source: Any, path: str) -> Any:
    """`value` with the field at `path` as it is in `source`."""
    if not path or not isinstance(value, (dict, list)):
        return source
    head, _, rest = path.partition(".")
    if isinstance(value, list):
        at = int(head)
        return [put_back(v, source[i], rest) if i == at else v for i, v in enumerate(value)]
    if head not in source:
        return {key: v for key, v in value.items() if key != head}
    return {**value, head: put_back(value.get(head), source[head], rest)}


def same(one: Any, other: Any) -> bool:
    """Whether two values are the same JSON: 1 and 1.0 are, 1 and true are not."""
    if isinstance(one, bool) != isinstance(other, bool):
        return False
    if isinstance(one, dict) and isinstance(other, dict):
        return one.keys() == other.keys() and all(same(v, other[key]) for key, v in one.items())
    if isinstance(one, list) and isinstance(other, list):
        return len(one) == len(other) and all(same(a, b) for a, b in zip(one, other, strict=True))
    return bool(one == other)


def _tells_apart(entries: list[Any], key: str) -> bool:
    if not all(isinstance(entry, dict) and isinstance(entry.get(key), str) for entry in entries):
        return False
    return len({entry[key] for entry in entries}) == len(entries)


def _at(path: str, step: object) -> str:
    return f"{path}.{step}" if path else str(step)
