"""The fitting document and the rack: round trips, bad input at its field, and the schema that is published."""

from __future__ import annotations

import copy
import json

import jsonschema
import pytest

from oblatus.core.fitting.proposal import propose
from oblatus.errors import InputError
from oblatus.formats.convert import fitting_from
from oblatus.formats.demo import demo_fittings, demo_rack
from oblatus.formats.fitting import dump_fitting, load_fitting, parse_fitting
from oblatus.formats.proposal_out import recommendation_out
from oblatus.formats.rack import COLUMNS, read_rack
from oblatus.usecases.engine import engine

DEMO = demo_fittings()


def changed(path: str, value) -> dict:
    """The first demo fitting with one value changed."""
    data = copy.deepcopy(DEMO[0].model_dump(mode="json"))
    *parents, last = [int(part) if part.isdigit() else part for part in path.split(".")]
    at = data
    for part in parents:
        at = at[part]
    at[last] = value
    return data


@pytest.mark.parametrize("document", DEMO, ids=lambda d: d.player.name)
def test_round_trip_is_identical_and_fits_the_published_schema(document, project):
    text = dump_fitting(document)
    assert dump_fitting(load_fitting(text)) == text
    schema = json.loads((project / "docs/formats/fitting.schema.json").read_text())
    jsonschema.validate(json.loads(text), schema)


@pytest.mark.parametrize(
    ("path", "value", "field"),
    [
        ("player.delivery.lean_deg.mean", 90, "player.delivery.lean_deg.mean"),
        ("player.delivery.lean_deg.mean", "six", "player.delivery.lean_deg.mean"),
        ("player.delivery.lean_deg.mean", "6", "player.delivery.lean_deg.mean"),
        ("player.delivery.lean_deg.mean", True, "player.delivery.lean_deg.mean"),
        ("player.delivery.lean_deg.mean", float("nan"), "player.delivery.lean_deg.mean"),
        ("player.complaints", "x" * 2_001, "player.complaints"),
        ("player.name", "   ", "player.name"),
        ("player.wedge_count", 2.5, "player.wedge_count"),
        ("player.shot_mix", {"full": 0.7}, "player.shot_mix"),
        ("player.shot_mix", {"moon shot": 1.0}, "player.shot_mix.moon shot"),
        ("grounds.0.share", 0.1, "grounds"),
        ("grounds.0.turf.firmness_g", -3, "grounds.0.turf.firmness_g"),
        ("grounds.1.name", "Quarry Down", "grounds"),
        ("grounds", [], "grounds"),
        ("bag.wedges.0.loft_deg", 5, "bag.wedges.0.loft_deg"),
        ("bag.nine_iron_loft_deg", 47, "bag.nine_iron_loft_deg"),
        ("bag.colour", "red", "bag.colour"),
        ("choices.ladder_deg", [56, 50], "choices.ladder_deg"),
        ("format", "something else", "format"),
        ("version", 0, "version"),
        ("version", 2, "version"),
        ("version", True, "version"),
    ],
)
def test_wrong_values_are_named_at_their_field(path, value, field):
    with pytest.raises(InputError) as error:
        parse_fitting(changed(path, value))
    assert [fault.field for fault in error.value.faults] == [field]


@pytest.mark.parametrize("text", ["", "{", "[1]", '"text"', "null", "[" * 100_000, '{"format": NaN}'])
def test_foreign_and_broken_json(text):
    with pytest.raises(InputError):
        load_fitting(text)


def test_every_fault_is_told_at_once():
    data = changed("player.delivery.lean_deg.mean", 90)
    data["bag"]["wedges"][0]["bounce_deg"] = -1
    with pytest.raises(InputError) as error:
        parse_fitting(data)
    assert len(error.value.faults) == 2
    assert "between −8 and 16°" in error.value.faults[0].message


def test_units_reach_the_engine_in_si():
    document = DEMO[0]
    engine = fitting_from(document, demo_rack())
    assert engine.player.habit.entry.mean == pytest.approx(document.player.delivery.entry_mm.mean / 1000)
    assert engine.stock[0].head.sole_width == pytest.approx(document.bag.wedges[0].sole_width_mm / 1000)
    assert engine.grounds[0].sand.loose_depth == pytest.approx(document.grounds[0].sand.loose_depth_mm / 1000)
    assert [item.owned for item in engine.stock[:4]] == [True, True, True, False]


@pytest.mark.parametrize("document", DEMO, ids=lambda d: d.player.name)
def test_a_proposal_is_finite_json_with_reasons(document):
    result = recommendation_out(propose(fitting_from(document, demo_rack()), engine().judge))
    json.loads(result.model_dump_json(), parse_constant=pytest.fail)
    assert result.verdict
    assert result.clubs or result.steps[result.taken_step].kind == "bag"
    short = [s for s in result.scenarios if s.kind != "full"]
    for club in result.clubs:
        assert club.reason
        assert len(club.situations) == len(short)
        assert all(row.best_strokes <= row.strokes + 0.2 for row in club.situations)
        assert club.candidates[0].behind == pytest.approx(0, abs=1e-4)
        for row in club.situations:
            scenario = next(s for s in short if s.key == row.scenario)
            assert row.serves == [pin for pin, slot in scenario.served_by.items() if slot == club.slot]
    assert [verdict.code for verdict in result.bag] == [f"own:{n}" for n in range(len(document.bag.wedges))]
    assert sum(leak.won for leak in result.leaks) == pytest.approx(result.gain_strokes_round, abs=0.01)


def test_the_demo_rack_is_wide_and_real():
    heads = demo_rack()
    assert len(heads) >= 40
    assert min(h.loft_deg for h in heads) <= 44
    assert max(h.loft_deg for h in heads) >= 64
    assert len({h.bounce_deg for h in heads}) > 6


def test_the_rack_names_line_and_column_of_every_wrong_cell():
    rows = [",".join(COLUMNS)]
    good = demo_rack()[0].model_dump()
    rows.append(",".join(str(good[c]) for c in COLUMNS))
    rows.append(",".join(str({**good, "code": "B", "loft_deg": 12}[c]) for c in COLUMNS))
    rows.append(",".join(str({**good, "code": "C", "bounce_deg": "much"}[c]) for c in COLUMNS))
    rows.append(",".join(str(good[c]) for c in COLUMNS))
    with pytest.raises(InputError) as error:
        read_rack("\n".join(rows))
    assert [f.field for f in error.value.faults] == ["line 3, loft", "line 4, bounce", "code"]
    with pytest.raises(InputError) as error:
        read_rack("code,name\nA,b")
    assert "loft, bounce" in error.value.faults[0].message


def test_drops_and_pushes_say_the_reading_and_that_it_is_measured():
    raw = demo_fittings()[0].model_dump(mode="json")
    raw["grounds"][0]["turf"].update(readings_g=[112, 118, 124], firmness_g=60, firmness_source="assumed")
    raw["grounds"][0]["sand"].update(readings_kg_cm2=[2.0, 2.1])
    ground = parse_fitting(raw).grounds[0]
    assert (ground.turf.firmness_g, ground.turf.firmness_source) == (118.0, "measured")
    assert (ground.sand.penetrometer_kg_cm2, ground.sand.penetrometer_source) == (2.05, "measured")
    raw["grounds"][0]["turf"]["readings_g"] = [112, 900]
    with pytest.raises(InputError) as error:
        parse_fitting(raw)
    assert error.value.faults[0].field == "grounds.0.turf.readings_g.1"


@pytest.mark.parametrize(
    ("part", "message"),
    [({"grounds": [{"name": "home", "share": 1.0, "read_on": "soon"}]}, "must be a day, as 2026-10-03"),
     ({"grounds": [{"name": "home", "share": 1.0, "read_on": 5}]}, "must be a day, as 2026-10-03"),
     ({"grounds": [{"name": "home", "share": 1.0, "read_on": "2026-10-03T10:00:00"}]}, "must be a day, as 2026-10-03"),
     ({"build": {"clubs": [{"code": "own:0", "loft_deg": 56, "swing_weight": "X9"}]}}, "is none that is known")],
)  # fmt: skip
def test_what_a_file_has_wrong_is_told_in_our_words(part, message):
    with pytest.raises(InputError) as error:
        parse_fitting({"format": "oblatus.fitting", "version": 1, "player": {"name": "somebody"}, **part})
    assert message in [fault.message for fault in error.value.faults]
    assert not any("should" in fault.message for fault in error.value.faults)


def test_a_wrong_entry_is_one_fault_however_deep_it_stands():
    """A trip with one ground whose moisture is wrong was told to have no ground, too."""
    ground = {"name": "away", "share": 1.0, "turf": {"moisture": -0.05}}
    trips = {"grounds": [{"name": "home", "share": 1.0}], "after": {"trips": [{"name": "sands", "grounds": [ground]}]}}
    with pytest.raises(InputError) as error:
        parse_fitting({"format": "oblatus.fitting", "version": 1, "player": {"name": "somebody"}, **trips})
    assert [fault.field for fault in error.value.faults] == ["after.trips.0.grounds.0.turf.moisture"]
    trips["after"]["trips"][0]["grounds"] = []
    with pytest.raises(InputError) as error:
        parse_fitting({"format": "oblatus.fitting", "version": 1, "player": {"name": "somebody"}, **trips})
    assert [fault.message for fault in error.value.faults] == ["must have at least 1 entry"]
