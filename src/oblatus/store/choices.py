"""What was chosen at a device, and when: a measurement that comes late belongs to what was chosen when it was made."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict, dataclass

from oblatus.store.tables import LinkRow, now

KEPT = 40


@dataclass(frozen=True, slots=True)
class Choice:
    """What the measurements of a device belong to: club and station of a strike, target of a reading; the club's loft
    [degrees] as the device was told it, None if it was not."""

    club: str
    swing: str
    target: str
    loft_deg: float | None = None


def chosen_at(row: LinkRow, moment: float | None) -> Choice:
    """What was chosen at a moment [s since 1970]: the last choice before it; what is chosen now if nobody knows when."""
    if moment is None or not row.choices:
        return _chosen_now(row)
    before = [one for one in row.choices if one["since"] <= moment] or row.choices[:1]
    last = before[-1]
    return Choice(last["club"], last["swing"], last["target"], last.get("loft_deg"))


def note_choice(row: LinkRow) -> None:
    """Keep what is chosen from now on, if it is another than before."""
    choice = asdict(_chosen_now(row))
    told = row.choices[-1] if row.choices else {}
    if any(told.get(key) != choice[key] for key in ("club", "swing", "target")):
        row.choices = [*row.choices, {"since": now().timestamp(), **choice}][-KEPT:]


def note_loft(row: LinkRow, loft_deg: float) -> None:
    """Keep the loft [degrees] that the device is told of the club that is chosen: the club may be gone, or bent, when a
    strike with it comes late. Another loft of the same club counts from now on."""
    if not row.choices:
        return
    *before, last = row.choices
    if last.get("loft_deg") is None:
        row.choices = [*before, {**last, "loft_deg": loft_deg}]
    elif last["loft_deg"] != loft_deg:
        row.choices = [*before, last, {**last, "since": now().timestamp(), "loft_deg": loft_deg}][-KEPT:]


def rename_choices(row: LinkRow, codes: Mapping[str, str]) -> None:
    """Let earlier choices go with their clubs to other codes, and keep what is chosen from now on."""
    row.choices = [{**one, **{key: codes.get(one[key], one[key]) for key in ("club", "target")}} for one in row.choices]
    note_choice(row)


def _chosen_now(row: LinkRow) -> Choice:
    return Choice(row.club, row.swing, row.target)
