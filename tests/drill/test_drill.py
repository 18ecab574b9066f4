"""The drill itself: nothing lost, doubled, overwritten or said that is not so; and counts that can say otherwise."""

from __future__ import annotations

from oblatus.cli.drill import report
from oblatus.drill.drill import Count, Editor, follow, run_drill
from oblatus.drill.tablet import Answer


def test_strikes_and_edits_stand_through_every_fault():
    """Every fault, a fifth of the acts of `oblatus drill`, which sends a thousand strikes and two hundred edits."""
    said: list[str] = []
    count = run_drill(said.append, strikes=200, edits=40, offline_seconds=3.0)
    assert count.clean, report(count)
    assert (count.strikes, count.edits) == (200, 40)
    assert len(count.faults) == 10 or count.notes, "every fault, the full disk where there is one to fill"
    assert count.conflicts_told > 0
    assert count.device_strikes > 0
    assert {"signed_out", "other_fitter", "busy"} <= set(count.retries)


def test_the_counts_can_say_otherwise():
    for name in ("lost", "doubled", "overwritten", "untrue_saved"):
        count = Count(**{name: 1})
        assert not count.clean
    assert "lost 0" in report(Count())


class Overwriting:
    """A server that saves over anything."""

    def insist(self, method: str, path: str, body=None) -> Answer:
        document = {"player": {"complaints": "theirs"}, "bag": {"wedges": [{"wear": ""}]}}
        if path == "/api/fittings":
            return Answer(200, {"fittings": [{"id": "f", "revision": 2}]})
        if path.endswith("/export"):
            return Answer(200, document)
        if method == "PATCH":
            document = {**document, "player": body["player"]}
        return Answer(200, {"document": document, "revision": 2, "conflicts": []})


def test_an_edit_saved_over_anothers_is_counted():
    editor = Editor(Overwriting(), "/f")  # type: ignore[arg-type]
    editor.look()
    log: list[tuple[str, str, str]] = []
    editor.edit("complaints", "mine", log, Count())
    stale = Editor(Overwriting(), "/f")  # type: ignore[arg-type]
    stale.look()
    stale.edit("complaints", "other", log, Count())
    assert follow({"complaints": "theirs"}, log) == (1, {"complaints": "other"})
    assert follow({"complaints": "theirs"}, log[:1]) == (0, {"complaints": "mine"})
