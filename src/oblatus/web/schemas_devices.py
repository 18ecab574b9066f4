"""What the routes of devices, readings, venues and photos take and answer."""

from __future__ import annotations

from datetime import date
from typing import Literal
from uuid import UUID

from oblatus.core.grounds import Season
from oblatus.formats.fields import Strict
from oblatus.formats.readings import Kind, ReadingDocument, ReadSummary, Target
from oblatus.formats.sections.grounds import GroundDocument
from oblatus.formats.strikes import ClubCode, SwingKey
from oblatus.settings import DeviceKind
from oblatus.web.schemas import FittingPath


class MonitorIn(Strict):
    """Whether the strike monitor is wanted, and the club and station of the next strikes."""

    wanted: bool
    club: ClubCode
    swing: SwingKey


class DevicePath(FittingPath):
    """An instrument of a fitting."""

    kind: Kind


class DeviceIn(Strict):
    """Whether an instrument is wanted, and the club (own:N) or ground (its name) of the next readings."""

    wanted: bool
    target: Target


class DeviceOut(Strict):
    """How a device goes: what it reads, lines kept and refused, the last reason. `available`: the studio has one."""

    kind: DeviceKind
    available: bool
    wanted: bool
    state: Literal["off", "connecting", "live", "lost"]
    device: str
    simulated: bool
    target: str
    taken: int
    refused: int
    last_refusal: str


class MonitorOut(DeviceOut):
    """How the strike monitor goes, with the club and station of the next strikes."""

    club: str
    swing: str


class DevicesOut(Strict):
    """The fitting's devices, the strike monitor first."""

    devices: list[DeviceOut]


class ReadingPath(FittingPath):
    """A reading's id."""

    reading_id: UUID


class ReadingsListOut(Strict):
    """Readings of the fitting's instruments in their order, and what they say by club or ground."""

    readings: list[ReadingDocument]
    summaries: list[ReadSummary]


class PhotoPath(FittingPath):
    """A photo's id."""

    photo_id: UUID


class PhotoOut(Strict):
    """A photo that is kept, re-encoded: width and height in pixels."""

    id: UUID
    width: int
    height: int


class VenuePath(Strict):
    """A record of the venue library."""

    record_id: UUID


class SurfaceLine(Strict):
    """What a record says of one kind of its ground."""

    key: str
    name: str
    words: str


class VenueOut(Strict):
    """A record of the library, with what its readings say."""

    id: UUID
    venue: str
    season: Season
    read_on: date
    kept_by: str
    ground: GroundDocument
    surfaces: list[SurfaceLine]


class VenuesOut(Strict):
    """The library by venue, newest reading first."""

    records: list[VenueOut]
