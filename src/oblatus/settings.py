"""Settings: read once from the environment, checked, frozen."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from pathlib import Path

from oblatus.errors import SetUpError

DEVICE_KINDS = ("monitor", "gauge", "hammer", "penetrometer")
PROJECT = Path(__file__).resolve().parents[2]


@dataclass(frozen=True, slots=True)
class Settings:
    """What a running application needs to know.

    `families_dir` keeps computed families between starts; without it they live in memory only.
    `devices` gives host:port of the studio's monitor, gauge, hammer and penetrometer: stand-ins unless something else is
    said.
    `argon_time_cost` and `argon_memory_kib` set the cost of a password check; tests lower them.
    """

    database_url: str
    secret_key: str
    static_dir: Path = PROJECT / "frontend" / "dist"
    families_dir: Path | None = None
    sign_in_limit: str = "8 per minute"
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
    found = {}
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
        devices=devices_from(environment.get("OBLATUS_DEVICES", "")),
    )
