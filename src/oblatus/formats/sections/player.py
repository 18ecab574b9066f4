"""The player of a fitting's document: who, how the club is delivered, which schools are followed."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, Any, Self, get_type_hints

from pydantic import create_model, model_validator

from oblatus.core.bounds import Bound
from oblatus.core.constants import MOST_WEDGES
from oblatus.core.delivery import OpeningHabit, Release, Schools
from oblatus.core.geometry import Hand
from oblatus.core.shots import BY_KEY
from oblatus.formats.fields import Strict, Within, at_field
from oblatus.formats.sections.parts import Name, Note, Share, Source, check_whole


class _Estimate(Strict):
    count: Annotated[int, Within(Bound(1, 100_000, "strikes"))] | None = None
    source: Source = "assumed"


class AttackEstimate(_Estimate):
    """Attack angle of partial swings [degrees], down negative."""

    mean: Annotated[float, Within(Bound(-15, 2, "degrees"))] = -5.0
    spread: Annotated[float, Within(Bound(0, 6, "degrees"))] = 1.5


class LeanEstimate(_Estimate):
    """Shaft lean of partial swings [degrees], handle ahead positive."""

    mean: Annotated[float, Within(Bound(-8, 16, "degrees"))] = 5.0
    spread: Annotated[float, Within(Bound(0, 6, "degrees"))] = 2.0


class EntryEstimate(_Estimate):
    """Where the sole lands, from the ball's centre [mm], behind negative."""

    mean: Annotated[float, Within(Bound(-150, 40, "mm"))] = -34.0
    spread: Annotated[float, Within(Bound(0, 60, "mm"))] = 15.0


class DeliveryDocument(Strict):
    """How the player delivers the club in partial swings."""

    attack_deg: AttackEstimate = AttackEstimate()
    lean_deg: LeanEstimate = LeanEstimate()
    entry_mm: EntryEstimate = EntryEstimate()
    release: Release = "level"
    opening: OpeningHabit = "when_needed"


class _SchoolsDocument(Strict):
    """The school followed where good practitioners differ; "measured" fits the habit."""

    if TYPE_CHECKING:

        def __getattr__(self, name: str) -> Any: ...


if TYPE_CHECKING:
    SchoolsDocument = _SchoolsDocument
else:
    SchoolsDocument = create_model(
        "SchoolsDocument", __base__=_SchoolsDocument, __doc__=_SchoolsDocument.__doc__,
        **{key: (kind, getattr(Schools(), key)) for key, kind in get_type_hints(Schools).items()},
    )  # fmt: skip


class PlayerDocument(Strict):
    """The player: who, complaints in their own words, delivery, speed, wishes."""

    name: Name
    hand: Hand = "right"
    handicap: Annotated[float, Within(Bound(-10, 54, "strokes"))] | None = None
    complaints: Note = ""
    delivery: DeliveryDocument = DeliveryDocument()
    pitching_wedge_carry_m: Annotated[float, Within(Bound(30, 170, "m"))] | None = None
    pitching_wedge_speed_mps: Annotated[float, Within(Bound(8, 48, "m/s"))] | None = None
    wedge_count: Annotated[int, Within(Bound(1, MOST_WEDGES, "wedges"))] | None = None
    schools: SchoolsDocument = SchoolsDocument()
    shot_mix: dict[str, Share] | None = None

    @model_validator(mode="after")
    def _shot_mix_is_whole(self) -> Self:
        check_shot_mix(self.shot_mix)
        return self


def check_shot_mix(mix: dict[str, float] | None) -> None:
    """Shares of shots of the catalogue that sum to 1; raises PydanticCustomError where they do not."""
    if mix is None:
        return
    unknown = sorted(set(mix) - set(BY_KEY))
    if unknown:
        raise at_field(f"shot_mix.{unknown[0]}", "is not a shot of the catalogue")
    check_whole(mix.values(), "shot_mix")
