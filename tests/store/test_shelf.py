"""The shelf that workers share: what one lays the others find, whole or not at all."""

from __future__ import annotations

import os
from pathlib import Path

import numpy as np
import pytest

from oblatus.core.fitting.reckoned import Part, name_of
from oblatus.store import shelf as shelves
from oblatus.store.shelf import RowShelf

PLAYER, OTHER = name_of("a player"), name_of("another")


def a_part(*heads: str) -> Part:
    figures = np.arange(6.0 * len(heads)).reshape(len(heads), 2, 3)
    figures[0, 1] = np.nan
    return Part([name_of(head) for head in heads], [name_of("near"), name_of("far")], figures)


def test_what_one_lays_the_other_finds_once(tmp_path):
    one, other = RowShelf(tmp_path / "rows", "program"), RowShelf(tmp_path / "rows", "program")
    assert one.laid(PLAYER, ()) == []
    part = a_part("a", "b")
    title = one.lay(PLAYER, part)
    [(found, same)] = other.laid(PLAYER, ())
    assert found == title
    assert (same.heads, same.questions) == (part.heads, part.questions)
    np.testing.assert_array_equal(same.figures, part.figures)
    more = other.lay(PLAYER, a_part("c"))
    assert [name for name, _ in one.laid(PLAYER, {title})] == [more]
    assert one.laid(OTHER, ()) == []


def test_another_program_begins_anew(tmp_path):
    RowShelf(tmp_path, "old").lay(PLAYER, a_part("a"))
    new = RowShelf(tmp_path, "new")
    assert new.laid(PLAYER, ()) == []
    assert [file.name for file in tmp_path.rglob("*")] == ["new"]


def test_a_part_that_is_broken_off_is_left_alone(tmp_path):
    shelf = RowShelf(tmp_path, "program")
    title = shelf.lay(PLAYER, a_part("a"))
    [file] = tmp_path.glob(f"*/{title}")
    for size in (0, 10, 200, file.stat().st_size - 5):
        whole = file.read_bytes()
        os.truncate(file, size)
        assert shelf.laid(PLAYER, ()) == []
        file.write_bytes(whole)
    assert len(shelf.laid(PLAYER, ())) == 1


def test_what_is_old_makes_room(tmp_path, monkeypatch):
    monkeypatch.setattr(shelves, "KEPT", 2)
    monkeypatch.setattr(shelves, "LAID_BETWEEN", 1)
    shelf, names = RowShelf(tmp_path, "program"), [PLAYER, OTHER, PLAYER, PLAYER, OTHER]
    for n, name in enumerate(names):
        title = shelf.lay(name, a_part("a"))
        for file in tmp_path.glob(f"*/{title}"):
            os.utime(file, (n, n))
    assert [len(shelf.laid(name, ())) for name in (PLAYER, OTHER)] == [1, 1]


@pytest.mark.parametrize("left", ["low", "full"])
def test_on_a_disk_that_is_nearly_full_nothing_is_laid(tmp_path, monkeypatch, left):
    monkeypatch.setattr(shelves, "room", lambda folder: left)
    shelf = RowShelf(tmp_path, "program")
    shelf.lay(PLAYER, a_part("a"))
    assert shelf.laid(PLAYER, ()) == []


def test_a_folder_that_cannot_be_is_no_error(tmp_path):
    (tmp_path / "file").write_text("not a folder")
    shelf = RowShelf(Path(tmp_path / "file" / "rows"), "program")
    shelf.lay(PLAYER, a_part("a"))
    assert shelf.laid(PLAYER, ()) == []
