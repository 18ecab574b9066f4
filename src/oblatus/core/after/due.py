"""When something wants looking at again: lofts, grooves, grips, the winter and the summer set-up, the next visit.
docs/models/log.md, 4.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Literal, get_args

from dateutil.relativedelta import relativedelta

from oblatus.core.after.wear import GROOVES_WORN_SHARE, Use, strikes_until

DueKey = Literal["lofts", "grooves", "grips", "winter", "summer", "visit"]
DUE_KEYS: tuple[DueKey, ...] = get_args(DueKey)
LOFTS_MONTHS = {("forged", False): 9, ("forged", True): 6, ("cast", False): 12, ("cast", True): 9}
"""Lofts are read again after so many months, by make and by whether the clubs are used much: soft heads drift (practice:
6 to 12). As long as nobody said how much they are used, they are."""
GROOVES_MONTHS, GRIPS_MONTHS, VISIT_MONTHS = 12, 12, 12
GRIPS_ROUNDS = 40.0
MUCH_ROUNDS, MUCH_BALLS = 40.0, 100.0
"""Clubs that see so many rounds a year or balls a week are used much (judgement)."""
WINTER, SUMMER = (11, 1), (4, 1)
"""First days of the winter and the summer set-up (judgement)."""
WORDS: dict[DueKey, str] = {
    "lofts": "Have the lofts read: heads drift",
    "grooves": "Have the grooves looked at",
    "grips": "Have the grips looked at",
    "winter": "Winter set-up: ask before the ground gets soft",
    "summer": "Summer set-up: ask before the ground gets firm",
    "visit": "The next visit to the studio",
}
SHORT_WORDS: dict[DueKey, str] = {
    "lofts": "lofts", "grooves": "grooves", "grips": "grips", "winter": "winter set-up", "summer": "summer set-up",
    "visit": "next visit",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Due:
    """Something that wants looking at: when, why then, and if it was put off, until when and the fitter's reason."""

    key: DueKey
    on: date
    words: str
    why: str
    put_off: str = ""


def due_from(
    since: date,
    make: str,
    use: Use,
    after: date | None = None,
    put_off: Mapping[str, tuple[date, str]] | None = None,
    looked_at: Mapping[str, date] | None = None,
) -> tuple[Due, ...]:
    """What is due, soonest first.

    Parameters
    ----------
    since : the day on which the set was built or handed over
    make : forged or cast: the softest of the set
    use : rounds and range balls
    after : seasons are those that begin after this day; None: after `since`
    put_off : what the fitter put off, by key: until when, and why
    looked_at : what was looked at since, by key: it counts from then
    """
    today = since if after is None else after
    much = use.rounds_year is None or use.rounds_year >= MUCH_ROUNDS or (use.range_balls_week or 0.0) >= MUCH_BALLS
    months = LOFTS_MONTHS[make, much]
    used = "used much" if use.known and much else "used little" if use.known else "nobody said how much they are used"

    def start(key: DueKey) -> date:
        return max(since, (looked_at or {}).get(key, since))

    days: dict[DueKey, tuple[date, str]] = {
        "lofts": (start("lofts") + relativedelta(months=months), f"{make} heads, {used}: {months} months"),
        "grooves": _grooves(start("grooves"), use),
        "grips": _grips(start("grips"), use),
        "winter": (_next(max(today, start("winter")), WINTER), "every year"),
        "summer": (_next(max(today, start("summer")), SUMMER), "every year"),
        "visit": (start("visit") + relativedelta(months=VISIT_MONTHS), f"{VISIT_MONTHS} months"),
    }
    found = []
    for key, (on, why) in days.items():
        until, reason = (put_off or {}).get(key, (on, ""))
        later = until > on
        found.append(Due(key, until if later else on, WORDS[key], why, reason if later else ""))
    return tuple(sorted(found, key=lambda one: (one.on, DUE_KEYS.index(one.key))))


def _grooves(since: date, use: Use) -> tuple[date, str]:
    """When the grooves have lost what is worth looking at, a year at the latest."""
    latest = since + relativedelta(months=GROOVES_MONTHS)
    years = strikes_until(GROOVES_WORN_SHARE) / use.strikes_year if use.strikes_year > 0.0 else None
    if years is None or years >= GROOVES_MONTHS / 12.0:
        return latest, f"{GROOVES_MONTHS} months"
    return since + timedelta(days=round(365.0 * years)), f"{use.strikes_year:.0f} strikes a year with each wedge"


def _grips(since: date, use: Use) -> tuple[date, str]:
    latest = since + relativedelta(months=GRIPS_MONTHS)
    if not use.rounds_year or use.rounds_year <= GRIPS_ROUNDS:
        return latest, f"{GRIPS_MONTHS} months"
    return since + timedelta(days=round(365.0 * GRIPS_ROUNDS / use.rounds_year)), f"{GRIPS_ROUNDS:.0f} rounds"


def _next(today: date, day: tuple[int, int]) -> date:
    this = date(today.year, *day)
    return this if this > today else date(today.year + 1, *day)
