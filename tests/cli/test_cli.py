"""The shell: answers with units in their keys, bad input in one line with exit code 2."""

from __future__ import annotations

import io
import json
import subprocess
import sys

import pypdfium2
import pytest

from oblatus.cli.main import VERBS, main
from oblatus.formats.demo import demo_fittings
from oblatus.formats.fitting import dump_fitting


def run(capsys, *argv: str):
    try:
        code = main(argv)
    except SystemExit as error:
        code = error.code
    out = capsys.readouterr()
    return code, out.out, out.err


def test_deliver(capsys):
    code, out, _ = run(capsys, "deliver", "--loft", "56", "--bounce", "10", "--lean", "0", "--open", "20", "--json")
    found = json.loads(out)
    assert code == 0
    assert found["delivered_loft_deg"] == pytest.approx(65.7, abs=0.05)
    assert found["delivered_bounce_deg"] == pytest.approx(18.3, abs=0.05)
    assert found["leading_edge_height_mm"] == pytest.approx(7.7, abs=0.05)
    assert set(found) == {"delivered_loft_deg", "delivered_bounce_deg", "face_direction_deg", "leading_edge_height_mm"}


def test_flight_from_the_ball_and_from_the_club(capsys):
    _, out, _ = run(capsys, "flight", "--ball-speed", "45.176", "--launch", "23.833", "--spin", "9530", "--json")
    ball = json.loads(out)
    assert set(ball) == {
        "carry_m", "apex_m", "landing_deg", "lateral_m", "time_s", "landing_speed_mps", "landing_spin_rpm", "run_m",
    }  # fmt: skip
    assert ball["carry_m"] == pytest.approx(120.85, abs=0.02)
    _, out, _ = run(capsys, "flight", "--club-speed", "37.1", "--dynamic-loft", "34.7", "--attack", "-5", "--json",
                    "--wind-head", "3", "--wind-cross", "2")  # fmt: skip
    club = json.loads(out)
    assert club["carry_m"] == pytest.approx(112.78, abs=0.02)
    assert club["spin_rpm"] == pytest.approx(9530, abs=1)
    _, out, _ = run(capsys, "flight", "--club-speed", "35.5", "--dynamic-loft", "49", "--lie-condition", "wet")
    assert "carry_m" in out


@pytest.mark.parametrize(
    ("argv", "words"),
    [
        (["deliver", "--loft", "5", "--bounce", "10"], ["loft_deg", "5", "between 40 and 68"]),
        (["deliver", "--loft", "56", "--bounce", "ten"], ["bounce_deg", "ten", "between 0 and 20"]),
        (["deliver", "--loft", "nan", "--bounce", "10"], ["loft_deg", "nan", "between"]),
        (["deliver", "--loft", "56"], ["--bounce"]),
        (["flight", "--ball-speed", "40"], ["launch_deg", "missing"]),
        (["flight"], ["ball_speed_mps", "missing"]),
        (
            ["flight", "--club-speed", "30", "--spin", "9000", "--dynamic-loft", "40"],
            ["club_speed_mps", "one or the other"],
        ),
        (["flight", "--ball-speed", "40", "--launch", "20", "--spin", "9e9"], ["spin_rpm", "16000"]),
        (["recommend", "no-such-file.json"], ["no-such-file.json"]),
        (["nonsense"], ["nonsense"]),
        (["strokes", "--lie", "water", "--distance", "3"], ["water", "fringe"]),
        (["strokes", "--lie", "green", "--distance", "-3"], ["distance_m", "between 0 and 200"]),
        (["strokes", "--lie", "green", "--distance", "3", "--handicap", "nan"], ["handicap", "between −6 and 54"]),
        (["serve", "--port", "70000"], ["port", "65535"]),
    ],
)
def test_bad_input_is_one_line_and_exit_code_two(capsys, argv, words):
    code, out, err = run(capsys, *argv)
    assert code == 2
    assert out == ""
    assert err.count("\n") == 1
    assert all(word in err for word in words), err


def test_recommend_reads_a_file_and_standard_input(capsys, tmp_path, monkeypatch):
    text = dump_fitting(demo_fittings()[1])
    path = tmp_path / "fitting.json"
    path.write_text(text)
    _, out, _ = run(capsys, "recommend", str(path), "--json")
    found = json.loads(out)
    for club in found["clubs"]:
        assert {"loft_deg", "bounce_deg", "sole_width_mm", "name", "owned", "bend_deg", "openings"} <= set(club)
        assert {"brings_strokes_round", "replaces"} <= set(club)
    taken = found["steps"][found["recommended_step"]]
    assert [club["name"] for club in taken["clubs"]] == [club["name"] for club in found["clubs"]]
    for step in found["steps"]:
        assert step["low"] <= step["gain_strokes_round"] <= step["high"]
        assert {"heads_bought", "better_share", "price"} <= set(step)
    assert found["doubt"]["law_draws"] == 8
    assert found["level_sets"] >= 1
    leak = found["leaks"][0]
    assert leak["strokes_round"] == pytest.approx(leak["club_part"] + leak["player_part"], abs=0.001)
    assert set(leak["served_by"]) == {"short", "middle", "roomy"}
    monkeypatch.setattr("sys.stdin", io.StringIO(text))
    code, words, _ = run(capsys, "recommend", "-")
    assert code == 0
    assert "Tam Hollis" in words
    path.write_text('{"format": "oblatus.fitting", "version": 1, "player": {"name": "A", "handicap": 99}}')
    code, _, err = run(capsys, "recommend", str(path))
    assert code == 2
    assert "player.handicap = 99: must be between −10 and 54" in err
    path.write_bytes(b"\xff\xfe")
    assert run(capsys, "recommend", str(path))[0] == 2


STRIKE = {
    "club": {"loft_deg": 56, "bounce_deg": 10},
    "speed_mps": 20, "attack_deg": -5, "lean_deg": 0, "opening_deg": 0, "release": 1, "entry_mm": -71,
    "ground": {"kind": "turf", "firmness_g": 90, "moisture": 0.5, "root_density": 1, "ball_height_mm": 3.5},
}  # fmt: skip


def test_strike_and_window_take_one_or_many(capsys, monkeypatch):
    monkeypatch.setattr("sys.stdin", io.StringIO(json.dumps(STRIKE)))
    code, out, _ = run(capsys, "strike", "-", "--reference")
    found = json.loads(out)
    assert code == 0
    assert (found["contact"], found["outcome"]) == ("face", "heavy")
    assert found["ball_speed_mps"] == pytest.approx(12.5, abs=0.06)
    assert found["leading_edge_mm"] == pytest.approx(-0.28, abs=0.01)
    monkeypatch.setattr("sys.stdin", io.StringIO(json.dumps([STRIKE, STRIKE])))
    _, out, _ = run(capsys, "strike", "-", "--trace")
    assert [len(item["path"]) > 10 for item in json.loads(out)] == [True, True]
    monkeypatch.setattr("sys.stdin", io.StringIO(json.dumps(STRIKE)))
    _, out, _ = run(capsys, "window", "-")
    window = json.loads(out)
    assert window["low_mm"] < -30 < window["high_mm"]
    assert window["width_mm"] == pytest.approx(window["high_mm"] - window["low_mm"])


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"lean_deg": 90}, ["lean_deg = 90", "between −10 and 20"]),
        (
            {"club": {"loft_deg": 56, "bounce_deg": 10, "sole_width_mm": 2}},
            ["club.sole_width_mm = 2", "between 10 and 32"],
        ),
        ({"ground": {"kind": "sand", "penetrometer_kg_cm2": 99}}, ["penetrometer_kg_cm2 = 99", "between 0.8 and 4"]),
        ({"speed_mps": "fast"}, ["speed_mps = fast", "must be a number"]),
        ({"colour": "red"}, ["colour"]),
    ],
)
def test_a_strike_that_cannot_be_is_one_line(capsys, monkeypatch, change, words):
    monkeypatch.setattr("sys.stdin", io.StringIO(json.dumps({**STRIKE, **change})))
    code, out, err = run(capsys, "strike", "-")
    assert (code, out, err.count("\n")) == (2, "", 1)
    assert all(word in err for word in words), err


def test_strokes_from_a_lie(capsys):
    code, out, _ = run(capsys, "strokes", "--handicap", "12", "--lie", "green", "--distance", "3", "--json")
    assert code == 0
    assert json.loads(out)["strokes"] == pytest.approx(1.711, abs=0.0006)
    assert "strokes" in run(capsys, "strokes", "--lie", "sand", "--distance", "20")[1]


def test_carries_at_the_shell_in_words_and_json(capsys, tmp_path):
    file = tmp_path / "fitting.json"
    file.write_text(dump_fitting(demo_fittings()[0]))
    code, out, _ = run(capsys, "carries", str(file), "--wind", "4", "--distance", "68", "--pin", "front")
    assert code == 0
    assert "42 strikes, 2 set aside" in out
    assert "measure next:" in out
    assert out.count("shot: ") == 6
    code, out, _ = run(capsys, "carries", str(file), "--json")
    found = json.loads(out)
    assert {"carry_m", "low_m", "spread_m", "from_what"} <= set(found["cells"][0])
    assert run(capsys, "carries", str(file), "--wind", "99")[0] == 2


def test_ladders_at_the_shell(capsys, tmp_path):
    file = tmp_path / "fitting.json"
    file.write_text(dump_fitting(demo_fittings()[0]))
    code, out, _ = run(capsys, "ladder", str(file), "--wedges", "2..3", "--wind", "3", "--json")
    found = json.loads(out)
    assert code == 0
    assert [len(ladder["lofts_deg"]) for ladder in found["ladders"]] == [2, 3]
    still = json.loads(run(capsys, "ladder", str(file), "--wedges", "2..3", "--json")[1])
    assert all(found["full_carry_m"][loft] < carry for loft, carry in still["full_carry_m"].items())
    code, out, _ = run(capsys, "ladder", str(file))
    assert "cover against cost" in out
    assert "bend old gap" in out
    for wrong, words in (
        ("4", "leave room for 3"),
        ("3..2", "rising"),
        ("2.5", "whole number"),
        ("x", "must be a number"),
    ):
        code, _, err = run(capsys, "ladder", str(file), "--wedges", wrong)
        assert (code, words in err) == (2, True), err


def test_a_file_of_strikes_is_read_at_the_shell_and_its_wrong_rows_are_said(capsys, tmp_path):
    path, fitting = tmp_path / "bay.csv", tmp_path / "fitting.json"
    path.write_bytes("Club;Carry;Angle of attack\nPW;100,5;-4\nSand;70;-5\nSand;700;-5\n".encode("cp1252"))
    fitting.write_text(dump_fitting(demo_fittings()[0]))
    code, out, _ = run(capsys, "import", str(path), "--fitting", str(fitting), "--unit", "yd", "--json")
    found = json.loads(out)
    assert code == 1
    assert [s["carry_m"] for s in found["strikes"]] == pytest.approx([91.8972, 64.008])
    assert [(w["row"], w["value"], w["reason"]) for w in found["wrong"]] == [(4, "700", "must be between 1 and 200 m")]
    mapping = tmp_path / "mapping.json"
    mapping.write_text(json.dumps({**found["mapping"], "clubs": {"PW": "pw", "Sand": None}}))
    code, out, _ = run(capsys, "import", str(path), "--mapping", str(mapping))
    assert code == 0
    assert "1 strike of 3 rows, 2 left out, 0 wrong" in out
    path.write_text("a;b\n1;2\n")
    code, _, err = run(capsys, "import", str(path))
    assert code == 2
    assert "columns" in err
    assert run(capsys, "import", str(tmp_path / "none.csv"))[0] == 2


def test_every_verb_is_registered_where_the_table_says(capsys):
    for verb in (verb for verbs in VERBS for verb in verbs):
        with pytest.raises(SystemExit) as stop:
            main([verb, "--help"])
        assert stop.value.code == 0, verb
        assert capsys.readouterr().out.startswith(f"usage: oblatus {verb}")


def test_a_quick_verb_does_not_wait_for_the_imports_of_others():
    told = (
        "import sys; from oblatus.cli.main import main\n"
        "main(['flight', '--ball-speed', '25', '--launch', '35', '--spin', '8000', '--json'])\n"
        "print([name for name in ('flask', 'sqlmodel', 'pydantic') if name in sys.modules], file=sys.stderr)"
    )
    ran = subprocess.run([sys.executable, "-c", told], capture_output=True, text=True, check=True)
    assert ran.stderr.strip() == "[]"


@pytest.mark.parametrize(
    "asked",
    [
        "deliver --loft 56 --bounce 10 --lean 6 --open 12 --json",
        "flight --club-speed 32 --dynamic-loft 46 --attack -5 --lie-condition wet --wind-head 4 --wind-cross 1 --json",
    ],
)
def test_a_quick_verb_by_itself_fetches_no_compiled_kernel_and_says_the_same(capsys, asked):
    told = (
        "import sys; from oblatus.cli.main import main; main()\n"
        "import numba; print(numba.config.DISABLE_JIT, file=sys.stderr)"
    )
    ran = subprocess.run([sys.executable, "-c", told, *asked.split()], capture_output=True, text=True, check=True)
    assert ran.stderr.strip() == "1"
    _, out, _ = run(capsys, *asked.split())
    assert json.loads(ran.stdout) == pytest.approx(json.loads(out), rel=1e-9)


@pytest.mark.parametrize(
    ("module", "spared"),
    [
        ("serve", "numpy sqlalchemy pydantic"), ("simulate", "sqlalchemy pydantic scipy.optimize"),
        ("bridge", "flask scipy.optimize"),
    ],
)  # fmt: skip
def test_what_runs_all_day_holds_no_library_that_it_never_uses(module, spared):
    told = f"import sys, oblatus.cli.{module}; print([name for name in {spared.split()} if name in sys.modules])"
    ran = subprocess.run([sys.executable, "-c", told], capture_output=True, text=True, check=True)
    assert ran.stdout.strip() == "[]"


def test_a_folder_that_is_not_served_is_not_prepared(capsys, tmp_path):
    assert main(["prepare", "--data", str(tmp_path)]) == 1
    assert capsys.readouterr().err == f"oblatus: no PostgreSQL runs in {tmp_path}: ./start runs it\n"


def test_proof_plans_and_judges_what_a_file_holds(capsys, tmp_path):
    tam = json.loads(dump_fitting(demo_fittings()[1]))
    path = tmp_path / "proof.json"
    asked = {
        "fitting": tam, "candidates": ["HG54", "own:0"], "balls_per_block": 3, "rounds": 1,
        "situations": [{"shot": "chip", "ground": "Vale clay, winter"}],
    }  # fmt: skip
    path.write_text(json.dumps(asked))
    code, out, _ = run(capsys, "proof", "plan", str(path))
    planned = json.loads(out)
    assert (code, planned["format"], len(planned["candidates"])) == (0, "oblatus.proof", 2)
    path.write_text(out)
    assert json.loads(run(capsys, "proof", "judge", str(path), "--json")[1])["verdict"]["advice"] == "none"
    path.write_text(json.dumps(tam["attached"]["proofs"][0]))
    found = json.loads(run(capsys, "proof", "judge", str(path), "--json")[1])
    assert (found["standing"], found["verdict"]["club"]) == ("proved", 0)
    assert found["evidence"][0]["shots"] == tam["evidence"][0]["shots"]
    path.write_text(json.dumps({**planned, "balls": [{"id": "x"}]}))
    code, out, err = run(capsys, "proof", "judge", str(path))
    assert (code, out) == (2, "")
    assert "balls.0.id" in err


def test_build_prints_the_sheet_with_units_in_its_keys(capsys, tmp_path):
    path = tmp_path / "fitting.json"
    path.write_text(dump_fitting(demo_fittings()[1]))
    code, out, _ = run(capsys, "build", str(path), "--json")
    sheet = json.loads(out)
    assert code == 0
    assert [club["action"] for club in sheet["clubs"]] == ["keep", "replace"]
    assert {"length_in", "mass_g", "swing_weight", "moment_oz_in"} <= set(sheet["clubs"][1]["built"])
    _, words, _ = run(capsys, "build", str(path))
    assert "Bend loft 1° weak" in words
    document = json.loads(path.read_text())
    document["build"] = {"clubs": [{"code": "BN55", "loft_deg": 58.0}]}
    path.write_text(json.dumps(document))
    code, out, err = run(capsys, "build", str(path))
    assert (code, out) == (2, "")
    assert "build.clubs.0.bend_deg" in err
    assert "at most 1° either way" in err


def test_card_setup_and_drills_print_what_the_player_takes_home(capsys, tmp_path):
    path, paper = tmp_path / "fitting.json", tmp_path / "card.pdf"
    path.write_text(dump_fitting(demo_fittings()[0]))
    code, out, _ = run(capsys, "card", str(path), "--pdf", str(paper))
    assert code == 0
    assert out.splitlines()[0] == "distance (m),club and swing,4 m/s into the wind,firm green"
    with pypdfium2.PdfDocument(paper) as document:
        words = document[0].get_textpage().get_text_range()
    assert "4\xa0m/s into the wind: " in words, "paper has its figures beside their units, a file has plain spaces"
    _, out, _ = run(capsys, "setup", str(path), "--json")
    lies = json.loads(out)["lies"]
    assert {"opening_deg", "lean_change_deg", "ball_mm", "weight", "clock", "carry_m", "sole_mm"} <= set(lies[0])
    _, out, _ = run(capsys, "setup", str(path))
    assert len(out.splitlines()) == len(lies)
    _, out, _ = run(capsys, "drills", str(path), "--json")
    assert all(drill["worth_strokes_round"] > 0 for drill in json.loads(out)["drills"])


def test_a_trip_says_setup_first_and_refuses_a_ground_that_cannot_be(capsys, tmp_path):
    fitting, ground = tmp_path / "fitting.json", tmp_path / "ground.json"
    fitting.write_text(dump_fitting(demo_fittings()[2]))
    ground.write_text(
        json.dumps({"name": "links", "turf": {"firmness_g": 150.0, "firmness_source": "typed"}, "green": "firm"})
    )
    code, out, _ = run(capsys, "trip", str(fitting), "--ground", str(ground), "--json")
    found = json.loads(out)
    assert code == 0
    assert found["advice"] in {"setup", "club", "both", "none"}
    assert set(found["setup"]["changes"][0]) >= {"situation", "lean_change_deg", "opening_change_deg", "entry_change_mm"}
    assert found["clubs"]["gain_strokes_round"] >= 0.0
    code, out, _ = run(capsys, "trip", str(fitting), "--ground", str(ground))
    assert out.startswith("links: ")
    for wrong, field in (
        ({"turf": {"firmness_g": -3.0}}, "ground.turf.firmness_g"),
        ([], "ground"),
        ({"name": 5}, "ground.name"),
    ):
        ground.write_text(json.dumps(wrong))
        code, _, err = run(capsys, "trip", str(fitting), "--ground", str(ground))
        assert (code, field in err) == (2, True), err
    ground.write_text("no JSON")
    assert run(capsys, "trip", str(fitting), "--ground", str(ground))[0] == 2
