"""Strike monitor, gauge, hammer and penetrometer of a fitting: connected, read, a reading set aside."""

from typing import Any

from oblatus.formats.readings import summarise_targets
from oblatus.store.tables import LinkRow
from oblatus.usecases.health import state_of
from oblatus.usecases.link_instrument import link_instrument, see_devices
from oblatus.usecases.link_monitor import link_monitor, see_monitor
from oblatus.usecases.readings import set_reading_aside, show_readings
from oblatus.web.answers import Answer, answer, nothing
from oblatus.web.auth import actor, database, settings
from oblatus.web.routes import Routes
from oblatus.web.schemas import FittingPath
from oblatus.web.schemas_devices import (
    DeviceIn,
    DeviceOut,
    DevicePath,
    DevicesOut,
    MonitorIn,
    MonitorOut,
    ReadingPath,
    ReadingsListOut,
)
from oblatus.web.schemas_strikes import AsideIn

blueprint = Routes("instruments", __name__, "/api/fittings/<uuid:fitting_id>")


@blueprint.get("/devices", responses={200: DevicesOut})
def get_devices(path: FittingPath) -> Answer:
    """How every device goes."""
    rows = see_devices(database(), actor(), path.fitting_id)
    return answer(DevicesOut(devices=[DeviceOut(**_values(row)) for row in rows]))


@blueprint.get("/monitor", responses={200: MonitorOut})
def get_monitor(path: FittingPath) -> Answer:
    """How the strike monitor goes."""
    return answer(_monitor(see_monitor(database(), actor(), path.fitting_id)))


@blueprint.put("/monitor", responses={200: MonitorOut})
def put_monitor(path: FittingPath, body: MonitorIn) -> Answer:
    """Want the monitor or not, and say what is hit next."""
    row = link_monitor(database(), actor(), path.fitting_id, body.club, body.swing, wanted=body.wanted)
    return answer(_monitor(row))


@blueprint.put("/devices/<string:kind>", responses={200: DeviceOut})
def put_device(path: DevicePath, body: DeviceIn) -> Answer:
    """Want an instrument or not, and say what it reads next."""
    row = link_instrument(database(), actor(), path.fitting_id, path.kind, body.target, wanted=body.wanted)
    return answer(DeviceOut(**_values(row)))


@blueprint.get("/readings", responses={200: ReadingsListOut})
def get_readings(path: FittingPath) -> Answer:
    """Readings, and what they say of each club and ground."""
    readings = show_readings(database(), actor(), path.fitting_id)
    return answer(ReadingsListOut(readings=readings, summaries=summarise_targets(readings)))


@blueprint.patch("/readings/<uuid:reading_id>", responses={204: None})
def patch_reading(path: ReadingPath, body: AsideIn) -> Answer:
    """Set a reading aside with its reason, or count it again."""
    set_reading_aside(database(), actor(), path.fitting_id, path.reading_id, body.set_aside)
    return nothing()


def _monitor(row: LinkRow) -> MonitorOut:
    return MonitorOut(**_values(row), club=row.club, swing=row.swing)


def _values(row: LinkRow) -> dict[str, Any]:
    """What is said of a device, by the names of `DeviceOut`."""
    names = ("kind", "wanted", "device", "simulated", "target", "taken", "refused", "last_refusal")
    said = {name: getattr(row, name) for name in names}
    return said | {"available": row.kind in settings().devices, "state": state_of(row)}
