"""Build orders of one studio, the heads that they take from the rack, and the price list."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from typing import Any
from uuid import UUID

from sqlalchemy import String, cast, func, literal, update
from sqlalchemy.dialects.postgresql import JSONB
from sqlmodel import col, select

from oblatus.core.build.parts import USUAL_SHELF
from oblatus.store.choices import rename_choices
from oblatus.store.repositories import OfStudio, found
from oblatus.store.tables import BuildOrderRow, LinkRow, LogShotRow, ProofRow, RackRow, ReadingRow, StrikeRow, Studio


class StudioBuilds(OfStudio):
    """Sheets at the bench, signed or cancelled."""

    def orders(self, fitting_id: UUID) -> Sequence[BuildOrderRow]:
        """Every order of a fitting, newest first."""
        query = (
            select(BuildOrderRow)
            .where(BuildOrderRow.studio_id == self.studio_id, BuildOrderRow.fitting_id == fitting_id)
            .order_by(col(BuildOrderRow.created_at).desc())
        )
        return self.session.exec(query).all()

    def order(self, fitting_id: UUID, order_id: UUID, *, lock: bool = False) -> BuildOrderRow:
        """One order."""
        query = select(BuildOrderRow).where(
            BuildOrderRow.studio_id == self.studio_id,
            BuildOrderRow.fitting_id == fitting_id,
            BuildOrderRow.id == order_id,
        )
        return found(self.session.exec(query.with_for_update() if lock else query).first(), "build order")

    def move_stock(self, change: Mapping[str, int]) -> list[str]:
        """Add to the stock of heads, or take from it where it is negative; heads in one order, so that two who take the
        same ones wait and do not lock each other out. Returns the codes of which there are too few."""
        missing = []
        for code in sorted(code for code, by in change.items() if by):
            by = change[code]
            statement = (
                update(RackRow)
                .where(col(RackRow.studio_id) == self.studio_id, col(RackRow.code) == code, col(RackRow.stock) + by >= 0)
                .values(stock=col(RackRow.stock) + by)
                .returning(col(RackRow.id))
            )
            if self.session.execute(statement).first() is None and by < 0:
                missing.append(code)
        if any(change.values()):
            studios = update(Studio).where(col(Studio.id) == self.studio_id)
            self.session.execute(studios.values(rack_revision=col(Studio.rack_revision) + 1))
        return missing

    def shelf(self, studio: Studio) -> dict[str, int]:
        """How many of every shaft and grip are there."""
        return {**USUAL_SHELF, **(studio.parts_stock or {})}

    def move_parts(self, change: Mapping[str, int]) -> None:
        """Add to the stock of parts, or take from it where it is negative; nothing is taken that is not there."""
        if not any(change.values()):
            return
        studio = self.session.exec(select(Studio).where(Studio.id == self.studio_id).with_for_update()).one()
        there = self.shelf(studio)
        studio.parts_stock = {**there, **{code: max(there.get(code, 0) + by, 0) for code, by in change.items()}}
        studio.prices_revision += 1
        self.session.add(studio)

    def parts_taken(self, fitting_id: UUID) -> Mapping[str, int]:
        """How many of which part are taken for the open order of a fitting."""
        query = select(BuildOrderRow.parts).where(
            BuildOrderRow.studio_id == self.studio_id,
            BuildOrderRow.fitting_id == fitting_id,
            BuildOrderRow.state == "open",
        )
        return Counter(self.session.exec(query).first() or [])

    def measured_codes(self, fitting_id: UUID) -> set[str]:
        """The codes of clubs that strikes, gauge readings and shots of the course go by."""
        club = func.jsonb_extract_path_text(col(LogShotRow.shot), "club")
        found: set[str] = set()
        for table, column in ((StrikeRow, col(StrikeRow.club)), (ReadingRow, col(ReadingRow.target)), (LogShotRow, club)):
            query = select(column).where(col(table.studio_id) == self.studio_id, col(table.fitting_id) == fitting_id)
            found |= set(self.session.exec(query.distinct()).all())
        return found

    def rename_clubs(self, fitting_id: UUID, clubs: Mapping[str, str], measured: Mapping[str, str]) -> None:
        """Devices and the order at the bench go with their clubs to other codes; strikes, gauge readings, shots and clubs
        of a proof go with the clubs as they were when they were hit and read."""
        for table, column, names in (
            (StrikeRow, col(StrikeRow.club), measured),
            (ReadingRow, col(ReadingRow.target), measured),
            (LinkRow, col(LinkRow.club), clubs),
            (LinkRow, col(LinkRow.target), clubs),
        ):
            mapping = literal(dict(names), type_=JSONB)
            self.session.execute(
                update(table)
                .where(
                    col(table.studio_id) == self.studio_id,
                    col(table.fitting_id) == fitting_id,
                    column.in_(list(names)),
                )
                .values({column: cast(func.jsonb_extract_path_text(mapping, column), String)})
            )
        links = select(LinkRow).where(LinkRow.studio_id == self.studio_id, LinkRow.fitting_id == fitting_id)
        for link in self.session.exec(links.execution_options(populate_existing=True)).all():
            rename_choices(link, measured)
            self.session.add(link)
        mapping, shot = literal(dict(measured), type_=JSONB), col(LogShotRow.shot)
        for key in ("club", "advised"):
            code = func.jsonb_extract_path_text(shot, key)
            self.session.execute(
                update(LogShotRow)
                .where(
                    col(LogShotRow.studio_id) == self.studio_id,
                    col(LogShotRow.fitting_id) == fitting_id,
                    code.in_(list(measured)),
                )
                .values(shot=func.jsonb_set(shot, [key], func.jsonb_extract_path(mapping, code)))
            )
        proofs = select(ProofRow).where(ProofRow.studio_id == self.studio_id, ProofRow.fitting_id == fitting_id)
        for proof in self.session.exec(proofs).all():
            candidates = [{**one, "code": _renamed(one["code"], measured)} for one in proof.document["candidates"]]
            if candidates != proof.document["candidates"]:
                proof.document = {**proof.document, "candidates": candidates}
                self.session.add(proof)
        for order in self.orders(fitting_id):
            if order.state == "open":
                order.sheet = {**order.sheet, "clubs": [_ordered(club, clubs) for club in order.sheet["clubs"]]}
                self.session.add(order)


def _ordered(club: dict[str, Any], names: Mapping[str, str]) -> dict[str, Any]:
    """A club of an order by its new code."""
    code = club["wish"]["code"]
    return {**club, "wish": {**club["wish"], "code": names.get(code, code)}}


def _renamed(code: str, names: Mapping[str, str]) -> str:
    """The new code of a club of a proof, which may be code@loft."""
    club, at, loft = code.partition("@")
    return names.get(club, club) + at + loft
