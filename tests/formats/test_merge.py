"""Two people's edits of one document: what one changed is merged, what both changed is told, nothing else happens."""

from __future__ import annotations

import copy
from typing import Any
from uuid import uuid4

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oblatus.core.words import GAP, Reader, worded
from oblatus.formats.demo import demo_fittings
from oblatus.formats.differences import difference, differences, name_of, words_of
from oblatus.formats.merge import changed_paths, merge, put_back, same

scalars = st.none() | st.booleans() | st.integers(-3, 3) | st.sampled_from(["a", "b", "c"])
values = st.recursive(
    scalars,
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.sampled_from("pqr"), inner, max_size=3),
    max_leaves=8,
)
documents = st.dictionaries(st.sampled_from("pqr"), values, max_size=3)


@given(documents, documents)
def test_an_edit_that_meets_nobody_is_taken_whole(base, mine):
    found = merge(base, mine, base)
    assert same(found.value, mine)
    assert found.conflicts == []


@given(documents, documents)
def test_an_edit_that_is_there_already_changes_nothing(base, mine):
    found = merge(base, mine, mine)
    assert same(found.value, mine)
    assert found.conflicts == []


@given(documents, documents, documents)
def test_theirs_is_never_lost_without_being_told(base, mine, theirs):
    """Wherever they changed something, theirs stands in the result, or the place is told as a conflict."""
    found = merge(base, mine, theirs)
    told = [conflict.path for conflict in found.conflicts]
    for path in changed_paths(found.value, theirs):
        inside = any(at(base, p) == at(theirs, p) or p in told for p in parents(path))
        assert inside, (path, told)


@given(documents, documents, documents)
def test_a_conflict_that_was_chosen_with_open_eyes_is_settled(base, mine, theirs):
    first = merge(base, mine, theirs)
    again = merge(base, mine, theirs, {conflict.path: conflict.theirs for conflict in first.conflicts})
    assert again.conflicts == []


@given(documents, documents)
def test_every_changed_path_put_back_gives_the_other_document(one, other):
    found: Any = other
    for path in changed_paths(one, other):
        found = put_back(found, one, path)
    assert same(found, one) or "" in changed_paths(one, other)


def at(value: Any, path: str) -> Any:
    for step in path.split(".") if path else []:
        if isinstance(value, dict):
            value = value.get(step)
        elif isinstance(value, list) and step.isdigit() and int(step) < len(value):
            value = value[int(step)]
        else:
            return None
    return value


def parents(path: str) -> list[str]:
    steps = path.split(".")
    return [".".join(steps[:n]) for n in range(len(steps) + 1)]


def fitting() -> dict[str, Any]:
    return demo_fittings()[0].model_dump(mode="json")


def test_two_grounds_added_by_two_people_are_both_there():
    base = fitting()["grounds"]
    extra = copy.deepcopy(base[0])
    mine, theirs = [*base, {**extra, "name": "mine"}], [*base, {**extra, "name": "theirs"}]
    found = merge(base, mine, theirs)
    assert [ground["name"] for ground in found.value] == [*(g["name"] for g in base), "theirs", "mine"]


def test_a_ground_taken_out_by_one_and_changed_by_the_other_is_a_question():
    base = fitting()["grounds"]
    theirs = copy.deepcopy(base)
    theirs[0]["turf"]["firmness_g"] = 111.0
    found = merge({"grounds": base}, {"grounds": base[1:]}, {"grounds": theirs})
    assert [conflict.path for conflict in found.conflicts] == ["grounds"]
    assert found.value == {"grounds": theirs}


def test_differences_are_told_by_names_and_units():
    before = fitting()
    after = copy.deepcopy(before)
    after["player"]["delivery"]["lean_deg"]["mean"] = 1.0
    after["grounds"][1]["turf"]["firmness_g"] = 99.0
    after["bag"]["wedges"][0]["loft_deg"] += 1.0
    after["strikes"] = after["strikes"][3:]
    after["strikes"][0]["set_aside"] = "thin"
    told = {one.name: one for one in differences(before, after)}
    ground, wedge = before["grounds"][1]["name"], before["bag"]["wedges"][0]["name"]
    assert told["shaft lean, mean"].after == 1.0
    assert (told[f"{ground}: turf firmness"].after, told[f"{ground}: turf firmness"].unit) == (99.0, "g")
    assert told["shaft lean, mean"].unit == "degrees"
    assert told[f"{wedge}: loft"].unit == "degrees"
    assert told["strikes taken out"].after == 3
    assert told["strikes changed"].after == 1
    assert differences(before, copy.deepcopy(before)) == []


def test_what_a_build_left_is_told_without_its_codes():
    before = fitting()
    after = copy.deepcopy(before)
    wedge, order = after["bag"]["wedges"][0], str(uuid4())
    after["bag"]["former"] = [
        {
            "code": f"was:{order[:8]}:{n}", "wedge": {**wedge, "name": name}, "until": "2026-10-18", "became": "bent",
            "order_id": order,
        }
        for n, name in enumerate(("old gap", "old sand"))
    ]  # fmt: skip
    wedge["built"] = {"order_id": order, "on": "2026-10-18", "by": "Somebody", "length_in": 35.5, "shaft": None}
    after["after"] = {"trips": [{"name": "The coast", "season": False, "grounds": after["grounds"]}]}
    told = {one.name: one.after_words for one in differences(before, after)}
    assert told["wedges as they were"] == "old gap until 18 Oct 2026, old sand until 18 Oct 2026"
    assert told[f"{wedge['name']}: as built"] == f"on 18 Oct 2026, by Somebody, length 35.5{GAP}in"
    assert told["trips"] == "The coast"


def test_a_choice_is_told_by_its_question_and_answers_as_its_form_has_them():
    before = demo_fittings()[0].model_dump(mode="json")
    after = copy.deepcopy(before)
    after["player"]["schools"] |= {"tight_firm": "use_sole", "clubs": "favourite"}
    after["player"]["delivery"] |= {"opening": "square"}
    told = [(one.name, one.before_words, one.after_words) for one in differences(before, after)]
    assert sorted(told) == [
        ("clubs", "a club per shot", "one favourite"), ("opens the face", "when needed", "never"),
        ("tight lie, firm ground", "own habit", "use the sole"),
    ]  # fmt: skip


def test_a_reader_of_yards_is_told_yards_and_shares_in_per_cent():
    before = fitting()
    after = copy.deepcopy(before)
    ground = after["grounds"][0]
    ground["share"] = 0.55
    after["choices"]["distances"] = [{"from_m": 45.72, "to_m": 91.44, "share": 0.4}]
    after["choices"]["layouts"] = [{"shot": "chip", "hole_m": 9.144, "room_m": 2.0, "behind_m": 9.0, "short": "rough"}]
    after["choices"]["pinned"] = [{"loft_deg": 56.0, "code": "SD56"}]
    told = {one.name: one for one in differences(before, after)}
    share = told[f"{ground['name']}: share of their golf"]
    assert (share.after, share.unit) == (55.0, "%")
    yards = {name: worded(one.after_words, Reader("yd", "mph")) for name, one in told.items()}
    assert yards["distances faced"] == "from 50.0 yd, to 100.0 yd, share 40 %"
    assert yards["where the hole is"].startswith("shot basic chip, to the hole 10.0 yd, room in front of it 2.2 yd")
    assert yards["heads set by hand"] == "SD56 at 56°"


def test_a_club_that_is_gone_is_named_as_it_was():
    """A code is a place in the bag: another wedge may have it since."""
    before = fitting()
    before["bag"]["wedges"] = before["bag"]["wedges"][:2]
    before["build"]["clubs"] = [{"code": "own:1", "loft_deg": 56.0}]
    after = copy.deepcopy(before)
    after["bag"]["wedges"][1] = {**after["bag"]["wedges"][1], "name": "new lob"}
    after["build"]["clubs"] = []
    told = {one.path: one.name for one in differences(before, after)}
    assert told["build.clubs"] == "clubs of the build sheet"
    after["build"]["clubs"] = [{"code": "own:0", "loft_deg": 50.0}]
    told = [one.name for one in differences(before, after) if one.path.startswith("build")]
    first, second = (wedge["name"] for wedge in before["bag"]["wedges"])
    assert told == [first, second]


def test_clubs_are_told_by_name_each_of_its_own_bag():
    """A pin, and the sheet, as a reader knows them: a code is a place in the bag."""
    before = fitting()
    lob = before["bag"]["wedges"].pop()
    before["choices"]["pinned"] = [{"loft_deg": 54.6, "code": "own:1"}]
    after = copy.deepcopy(before)
    gap, sand = (wedge["name"] for wedge in before["bag"]["wedges"])
    left = {"code": "was:1:0", "wedge": after["bag"]["wedges"].pop(0), "until": "2026-12-01", "became": "out of the bag"}
    after["bag"]["former"] = [left]
    after["choices"]["pinned"] = [{"loft_deg": 54.6, "code": "own:0"}, {"loft_deg": 50.8, "code": "was:1:0"}]
    after["build"]["clubs"] = [{"code": "own:0", "loft_deg": 54.6}, {"code": "R60", "loft_deg": 60.0}]
    after["rack"] = [{"code": "R60", "name": lob["name"]}]
    told = {one.name: (one.before_words, one.after_words) for one in differences(before, after)}
    was = f"{gap} until 1 Dec 2026"
    assert told[f"{was}: heads set by hand"] == ("none", f"{was} at 50.8°")
    assert not any(name.startswith(sand) for name in told), "the same head at the same loft, in another place of the bag"
    assert told["clubs of the build sheet"] == ("none", f"{sand} at 54.6°, {lob['name']} at 60°")


def test_what_was_said_to_the_log_is_told_by_what_it_was_about():
    before = fitting()
    gap = before["bag"]["wedges"][0]["name"]
    answers = [{"key": key, "accepted": True, "on": "2026-12-01", "shots": 12} for key in ("head:own:0:sand", "table")]
    after = {**copy.deepcopy(before), "after": {**before["after"], "decisions": answers}}
    (told,) = differences(before, after)
    assert (told.name, told.after_words) == ("answers to the log", f"{gap}, sand, strokes table")
    assert name_of("after.decisions.0.accepted", after) == f"{gap}, sand: answers to the log accepted"


@pytest.mark.parametrize(
    ("path", "name"),
    [
        ("build.clubs.0.lie_mark_mm", "{wedge}: board mark, toe +"),
        ("build.clubs.0.read.loft_deg", "{wedge}: read: loft"),
        ("build.clubs.0.grind.heel_mm", "{wedge}: heel off"),
        ("bag.wedges.0", "{wedge}"),
        ("bag.wedges.0.bends_deg.1", "{wedge}: bends number 2"),
        ("choices.layouts.0.hole_m", "basic chip: to the hole"),
        ("choices.distances.1.from_m", "band 2: from"),
        ("choices.economy.worth_changing", "a head must win"),
        ("choices.ladder_factors.gaps", "weight of uneven gaps"),
        ("player.shot_mix.sand_greenside", "share of greenside sand"),
        ("player.schools.clubs", "clubs"),
        ("build.clubs", "clubs of the build sheet"),
        ("after.use.rounds_year", "rounds a year"),
    ],
)
def test_a_field_has_the_name_that_its_form_gives_it(path, name):
    document = fitting()
    wedge = document["bag"]["wedges"][0]
    wedge["bends_deg"] = [0.5, 0.5]
    document["build"]["clubs"] = [{"code": "own:0", "loft_deg": 56.0, "grind": {}, "read": {}}]
    document["choices"]["layouts"] = [{"shot": "chip", "hole_m": 9.0}]
    document["choices"]["distances"] = [{"from_m": 30.0}, {"from_m": 60.0}]
    assert name_of(path, document) == name.format(wedge=wedge["name"])


@pytest.mark.parametrize(
    ("path", "document", "name"),
    [
        ("choices.layouts.0.shot", {"choices": {"layouts": [{"shot": ["x"]}]}}, "number 1 shot"),
        ("choices.layouts.0.shot", {"choices": {"layouts": [{"shot": {"a": 1}}]}}, "number 1 shot"),
        ("build.clubs.0.loft_deg", {"build": {"clubs": [{"code": "own:0"}]}, "bag": {"wedges": [{}]}}, "own:0: loft"),
        ("build.clubs.0.loft_deg", {"build": {"clubs": [{"code": "own:0"}]}, "bag": {"wedges": 5}}, "own:0: loft"),
        ("build.clubs.0.loft_deg", {"build": {"clubs": [{"code": "own:²"}]}, "bag": {"wedges": [{}]}}, "own:²: loft"),
        ("build.clubs.0.loft_deg", {"build": {"clubs": [{"code": "own:0"}]}, "bag": 5, "rack": 5}, "own:0: loft"),
        ("build.clubs.0.loft_deg", {"build": {"clubs": [{"code": "A"}]}, "rack": ["x", {"code": "A"}]}, "A: loft"),
        ("grounds.²", {"grounds": [{}]}, "²"),
    ],
)
def test_what_was_refused_is_named_whatever_it_is(path, document, name):
    assert name_of(path, document) == name


@pytest.mark.parametrize(
    ("value", "field", "words"),
    [("FR115", "shaft", "Flint 115"), ("CB50", "grip", "Cord 50"), ("a6", "size", "A6"), ("x_y", "shaft", "x y"),
     (["full", "rules"], "parts", "full swings, wind and green rules"), ("winter", "key", "winter set-up"),
     ({"shaft": "HZ95", "on": "2026-10-03"}, "", "shaft Hazel 95, on 3 Oct 2026")],
)  # fmt: skip
def test_what_is_chosen_from_a_table_is_told_by_what_the_table_calls_it(value, field, words):
    assert worded(words_of(value, field)) == words


@pytest.mark.parametrize(
    ("value", "words"),
    [([{"loft_deg": "x", "code": "A"}], "A at x"), ([{"loft_deg": None, "code": 5}], "5 at none"),
     ([{"from_m": float("nan"), "share": float("inf")}], "from nan m, share inf %"), ([[1, [2]]], "1, 2")],
)  # fmt: skip
def test_what_was_refused_is_told_in_words_whatever_it_is(value, words):
    assert worded(words_of(value)) == words


def test_long_texts_that_begin_alike_are_told_from_where_they_part():
    """Of two complaints of a hundred words each the first eighty letters said nothing of what to choose."""
    start = "Digs on winter clay, comes up short over bunkers, and skulls the odd one from hard turf in "
    one = difference("player.complaints", f"{start}August.", f"{start}spring, and in autumn.", {})
    assert one.before_words.startswith("…")
    assert one.before_words.endswith("hard turf in August.")
    assert one.after_words.endswith("hard turf in spring, and in autumn.")
    assert difference("player.complaints", "thin", "fat", {}).before_words == "thin"
    longer = difference("player.complaints", start * 2, start * 2 + "May", {})
    assert longer.before_words != longer.after_words
