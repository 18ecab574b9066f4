"""Settings: read once from the environment, checked, frozen."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from pathlib import Path
from typing import Literal, get_args

from oblatus.errors import SetUpError

DeviceKind = Literal["monitor", "gauge", "hammer", "penetrometer"]
DEVICE_KINDS: tuple[DeviceKind, ...] = get_args(DeviceKind)
TRUSTED_HOSTS = ("localhost", "127.0.0.1", "[::1]")
PROJECT = Path(__file__).resolve().parents[2]


@dataclass(frozen=True, slots=True)
class Settings:
    """What a running application needs to know.

    `families_dir` keeps computed families between starts; without it they live in memory only.
    `devices` gives host:port of the studio's monitor, gauge, hammer and penetrometer: stand-ins unless something else is
    said; a device shows `device_token`, where there is one, before its lines are taken.
    `data_dir` is the folder whose disk is looked at before anything is written. `trusted_hosts` are the names under which
    the application answers. `behind_front` takes the caller's address from the front server in front of it.
    `sign_in_tries` may fail for one account from one address in ten minutes.
    `argon_time_cost` and `argon_memory_kib` set the cost of a password check; tests lower them.
    """

    database_url: str
    secret_key: str
    static_dir: Path = PROJECT / "frontend" / "dist"
    families_dir: Path | None = None
    data_dir: Path | None = None
    trusted_hosts: tuple[str, ...] = TRUSTED_HOSTS
    behind_front: bool = False
    sign_in_tries: int = 8
    device_token: str = ""
    argon_time_cost: int = 3
    argon_memory_kib: int = 65536
    devices: Mapping[str, str] = field(default_factory=dict)
    testing: bool = False

    def __post_init__(self) -> None:
        if not self.database_url.startswith("postgresql+psycopg://"):
            raise SetUpError(
                f"OBLATUS_DATABASE_URL must start with postgresql+psycopg://, not {self.database_url[:24]!r}"
            )
        if len(self.secret_key) < 32:
            raise SetUpError("OBLATUS_SECRET_KEY must have at least 32 characters")


def devices_from(text: str) -> Mapping[str, str]:
    """Addresses of devices from words such as `monitor=127.0.0.1:9470 gauge=…`.

    Raises
    ------
    SetUpError
        If a word is no kind of device with host and port.
    """
    found: dict[str, str] = {}
    for word in text.split():
        kind, _, address = word.partition("=")
        host, _, port = address.rpartition(":")
        if kind not in DEVICE_KINDS or not host or not port.isdigit():
            raise SetUpError(f"OBLATUS_DEVICES: {word!r} is not one of {', '.join(DEVICE_KINDS)} with =host:port")
        found[kind] = address
    return found


def settings_from(environment: Mapping[str, str]) -> Settings:
    """Settings from environment variables.

    Raises
    ------
    SetUpError
        If one is missing or makes no sense; the message names it.
    """
    missing = [name for name in ("OBLATUS_DATABASE_URL", "OBLATUS_SECRET_KEY") if not environment.get(name)]
    if missing:
        raise SetUpError(f"{' and '.join(missing)} must be set; ./start does that")
    families = environment.get("OBLATUS_FAMILIES")
    return Settings(
        environment["OBLATUS_DATABASE_URL"],
        environment["OBLATUS_SECRET_KEY"],
        families_dir=Path(families) if families else None,
        data_dir=Path(environment["OBLATUS_DATA"]) if environment.get("OBLATUS_DATA") else None,
        trusted_hosts=(*TRUSTED_HOSTS, *environment.get("OBLATUS_HOSTS", "").split()),
        behind_front=environment.get("OBLATUS_FRONT") == "yes",
        device_token=environment.get("OBLATUS_DEVICE_TOKEN", ""),
        devices=devices_from(environment.get("OBLATUS_DEVICES", "")),
    )
