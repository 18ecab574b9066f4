"""When something wants looking at again, by make, use, what was put off and what was looked at."""

from __future__ import annotations

from datetime import date

import pytest

from oblatus.core.after.due import due_from
from oblatus.core.after.wear import WEAR_STRIKES, Use, strikes_until, wear_of, worn_share
from oblatus.core.delivery import Habit, Player
from oblatus.core.gapping import fit_carry_model

BUILT = date(2026, 3, 1)


def days(make="forged", **kwargs) -> dict[str, date]:
    return {one.key: one.on for one in due_from(BUILT, make, kwargs.pop("use", Use()), **kwargs)}


@pytest.mark.parametrize(
    ("make", "use", "months"),
    [
        ("forged", Use(), 6), ("forged", Use(10.0, 0.0), 9), ("forged", Use(60.0), 6), ("forged", Use(10.0, 150.0), 6),
        ("cast", Use(10.0), 12), ("cast", Use(60.0), 9),
    ],
)  # fmt: skip
def test_lofts_are_due_after_6_to_12_months_by_make_and_use(make, use, months):
    assert days(make, use=use)["lofts"] == date(2026 + (2 + months) // 12, (2 + months) % 12 + 1, 1)


def test_what_is_put_off_says_why_and_comes_back_on_its_day():
    later = due_from(BUILT, "forged", Use(), None, {"lofts": (date(2027, 1, 5), "away all winter")})
    lofts = next(one for one in later if one.key == "lofts")
    assert (lofts.on, lofts.put_off) == (date(2027, 1, 5), "away all winter")
    before = due_from(BUILT, "forged", Use(), None, {"lofts": (date(2026, 4, 1), "nothing to say")})
    assert next(one for one in before if one.key == "lofts").put_off == "", "put off to a day before it is due"
    assert [one.on for one in later] == sorted(one.on for one in later)


def test_what_was_looked_at_counts_from_then():
    assert days(looked_at={"lofts": date(2026, 9, 10)})["lofts"] == date(2027, 3, 10)
    assert days(looked_at={"lofts": date(2020, 1, 1)})["lofts"] == days()["lofts"], "not from before it was built"


def test_seasons_are_those_ahead():
    ahead = days(after=date(2027, 11, 2))
    assert (ahead["winter"], ahead["summer"]) == (date(2028, 11, 1), date(2028, 4, 1))
    assert days()["summer"] == date(2026, 4, 1)


def test_grips_and_grooves_follow_their_use():
    assert days(use=Use(80.0))["grips"] == date(2026, 8, 30)  # 40 rounds at 80 a year
    assert days(use=Use(20.0))["grips"] == date(2027, 3, 1)
    assert days(use=Use(200.0, 600.0))["grooves"] < days(use=Use(20.0))["grooves"] == date(2027, 3, 1)


def test_wear_is_the_stated_rule():
    assert worn_share(0.0) == 0.0
    assert worn_share(WEAR_STRIKES) == pytest.approx(0.632, abs=1e-3)
    assert strikes_until(worn_share(1234.0)) == pytest.approx(1234.0)
    assert Use(30.0, 100.0, 15.0).strikes_year == pytest.approx((30 * 15 + 52 * 0.35 * 100) / 3)


def test_worn_grooves_spin_less_and_run_more_from_wet_lies_above_all():
    model = fit_carry_model(Player(Habit(), pitching_wedge_carry=105.0), 46.0)
    new, used, old = (wear_of(n, model, 12.0, 15.0) for n in (0.0, 3000.0, 20_000.0))
    assert new.strokes_round == pytest.approx(0.0, abs=1e-9)
    assert 0.0 < used.strokes_round < old.strokes_round < 0.5
    assert old.spin_now["wet"] < used.spin_now["wet"] < used.spin_new["wet"] == new.spin_now["wet"]
    assert old.run_more["wet"] > old.run_more["dry"] > 0.0
