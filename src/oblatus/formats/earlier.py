"""Proposals that an earlier engine made: kept as they were, shown by what they have in common with those of today."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Any

from pydantic import BaseModel, ConfigDict, Field

from oblatus.core import ENGINE_VERSION
from oblatus.formats.fields import Strict
from oblatus.formats.recommendation import RecommendationOut
from oblatus.formats.sections.bag import HeadDocument


class EarlierClubOut(Strict):
    """A club of an earlier proposal."""

    slot: int
    loft_deg: float
    bounce_deg: float
    code: str
    name: str
    owned: bool
    bend_deg: float
    shape: str
    outline_mm: list[list[float]]
    duty: str
    reason: str


class EarlierOut(Strict):
    """What an earlier engine proposed. Its figures are not those of today and are not compared with them."""

    engine_version: str
    strikes: int
    clubs: list[EarlierClubOut]
    notes: list[str]


class _Loose(BaseModel):
    model_config = ConfigDict(extra="ignore")


class _Candidate(_Loose):
    code: str
    name: str
    owned: bool = False
    bend_deg: float = 0.0
    shape: str = ""
    outline_mm: list[list[float]]
    head: HeadDocument


class _Club(_Loose):
    slot: int
    loft_deg: float
    bounce_deg: float
    duty: str = ""
    reason: str = ""
    candidates: Annotated[list[_Candidate], Field(min_length=1)]


class _Note(_Loose):
    text: str


class _Earlier(_Loose):
    engine_version: str
    strikes: int = 0
    clubs: list[_Club]
    notes: list[_Note] = []


def is_earlier(engine_version: str) -> bool:
    """Whether another engine than today's made it: the first number tells."""
    return engine_version.split(".", maxsplit=1)[0] != ENGINE_VERSION.split(".")[0]


def kept_result(result: Mapping[str, Any]) -> RecommendationOut | EarlierOut:
    """A kept result as it was, or what an earlier engine's has in common with today's.

    Raises
    ------
    pydantic.ValidationError
        If it is neither.
    """
    if not is_earlier(str(result.get("engine_version", ENGINE_VERSION))):
        return RecommendationOut.model_validate(result)
    found = _Earlier.model_validate(result)
    return EarlierOut(
        engine_version=found.engine_version,
        strikes=found.strikes,
        clubs=[_club(club) for club in found.clubs],
        notes=[note.text for note in found.notes],
    )


def _club(club: _Club) -> EarlierClubOut:
    first = club.candidates[0]
    return EarlierClubOut(
        slot=club.slot,
        loft_deg=club.loft_deg,
        bounce_deg=club.bounce_deg,
        code=first.code,
        name=first.name,
        owned=first.owned,
        bend_deg=first.bend_deg,
        shape=first.shape,
        outline_mm=first.outline_mm,
        duty=club.duty,
        reason=club.reason,
    )
