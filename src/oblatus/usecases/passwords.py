"""Password hashes: Argon2id, with the cost taken from the settings."""

from __future__ import annotations

from functools import lru_cache

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError

from oblatus.errors import fault
from oblatus.settings import Settings

SHORTEST, LONGEST = 10, 200


@lru_cache(maxsize=4)
def _hasher(time_cost: int, memory_kib: int) -> PasswordHasher:
    return PasswordHasher(time_cost=time_cost, memory_cost=memory_kib, parallelism=1)


@lru_cache(maxsize=4)
def _nobody(time_cost: int, memory_kib: int) -> str:
    return _hasher(time_cost, memory_kib).hash("nobody has this password")


def hash_password(password: str, settings: Settings) -> str:
    """The hash to store."""
    return _hasher(settings.argon_time_cost, settings.argon_memory_kib).hash(password)


def password_fits(password: str, stored: str | None, settings: Settings) -> bool:
    """Whether the password fits; for an unknown address the same work is done, so that time tells nothing."""
    cost = (settings.argon_time_cost, settings.argon_memory_kib)
    try:
        fits = _hasher(*cost).verify(stored or _nobody(*cost), password)
    except (VerificationError, InvalidHashError):
        return False
    return fits and stored is not None


def check_new_password(password: str) -> None:
    """Refuse a password that will not do.

    Raises
    ------
    InputError
        If it is too short or too long.
    """
    if not SHORTEST <= len(password) <= LONGEST:
        raise fault("new", f"must have {SHORTEST} to {LONGEST} characters")
