"""Two people's edits of one document: what one changed is merged, what both changed is told, nothing else happens."""

from __future__ import annotations

import copy
from typing import Any
from uuid import uuid4

from hypothesis import given
from hypothesis import strategies as st

from oblatus.formats.demo import demo_fittings
from oblatus.formats.differences import differences
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
    assert told["shaft lean mean"].after == 1.0
    assert (told[f"{ground}: turf firmness"].after, told[f"{ground}: turf firmness"].unit) == (99.0, "g")
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
    assert told[f"{wedge['name']}: as built"] == "on 18 Oct 2026, by Somebody, length 35.5 in"
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
