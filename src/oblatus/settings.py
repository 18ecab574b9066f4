"""Settings: read once from the environment, checked, frozen."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from pathlib import Path

from oblatus.errors import SetUpError

PROJECT = Path(__file__).resolve().parents[2]


@dataclass(frozen=True, slots=True)
class Settings:
    """What a running application needs to know.

    `families_dir` keeps computed families between starts; without it they live in memory only.
    `monitor` is host:port of the studio's strike monitor, the stand-in unless something else is said.
    `argon_time_cost` and `argon_memory_kib` set the cost of a password check; tests lower them.
    """

    database_url: str
    secret_key: str
    static_dir: Path = PROJECT / "frontend" / "dist"
    families_dir: Path | None = None
    sign_in_limit: str = "8 per minute"
    argon_time_cost: int = 3
    argon_memory_kib: int = 65536
    monitor: str | None = None
    testing: bool = False

    def __post_init__(self) -> None:
        if not self.database_url.startswith("postgresql+psycopg://"):
            raise SetUpError(
                f"OBLATUS_DATABASE_URL must start with postgresql+psycopg://, not {self.database_url[:24]!r}"
            )
        if len(self.secret_key) < 32:
            raise SetUpError("OBLATUS_SECRET_KEY must have at least 32 characters")


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
        monitor=environment.get("OBLATUS_MONITOR") or None,
    )
