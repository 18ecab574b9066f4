"""A device of a fitting is wanted or not, and told anew what comes next; what was chosen when is kept."""

from __future__ import annotations

from uuid import UUID

from oblatus.store.choices import note_choice
from oblatus.store.repositories import StudioRows
from oblatus.store.tables import LinkRow


def link_of(rows: StudioRows, fitting_id: UUID, kind: str) -> LinkRow:
    """The fitting's device of this kind; one that is off if it never had it."""
    found = rows.link(fitting_id, kind)
    return found or LinkRow(fitting_id=fitting_id, kind=kind, studio_id=rows.studio_id)


def want(rows: StudioRows, row: LinkRow, *, wanted: bool) -> LinkRow:
    """Want the device or not; the bridge sees that it is armed anew."""
    if wanted:
        note_choice(row)
    row.wanted = wanted
    row.armed += 1
    row.state = ("connecting" if row.state in ("off", "lost") else row.state) if wanted else "off"
    rows.session.add(row)
    return row
