"""One club and a whole set as they are to be built: from heads and wishes to figures, work and price."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from oblatus.core.build.assembly import Assembly, Weighting, assemble, solve_weight, unmatched
from oblatus.core.build.bench import Grind, Ground, LieChange, bend_left, bent, ground, lie_change
from oblatus.core.build.parts import Grip, Shaft
from oblatus.core.build.sheet import BENCH_WEEKS, HEAD_WEEKS, Action, Operation, Prices, action_of, operations
from oblatus.core.clubs import Head, StockHead
from oblatus.core.words import counted
from oblatus.errors import Fault, InputError

NO_GRIND = Grind()


@dataclass(frozen=True, slots=True)
class Wish:
    """What a club is to be: its head, loft [degrees], lie [degrees] (None: as it is), bends of its life before, a grind,
    and, unless it keeps its shaft, length [in], shaft, grip and swing weight [points from D0]; `ordered` are the codes of
    its parts that are not on the shelf."""

    stock: StockHead
    loft_deg: float
    lie_deg: float | None = None
    bent_before_deg: tuple[float, ...] = ()
    grind: Grind = NO_GRIND
    length_in: float | None = None
    shaft: Shaft | None = None
    grip: Grip | None = None
    points: float | None = None
    ordered: frozenset[str] = frozenset()


@dataclass(frozen=True, slots=True)
class ClubPlan:
    """A club as it is to be built: its head after, what is done, in which order, with what, and what it costs.

    `bend_left_deg` is what remains of the head's limit afterwards; `lie` what the change of lie does to the start;
    `weighting` None where no swing weight was wished; `weeks` until it is done, the parts' and then the bench's.
    """

    wish: Wish
    head: Head
    bend_deg: float
    lie_by_deg: float
    bend_left_deg: float
    lie: LieChange
    ground: Ground | None
    built: Assembly | None
    weighting: Weighting | None
    action: Action
    operations: tuple[Operation, ...]
    labour: float
    parts: float
    weeks: int
    notes: tuple[str, ...]


def plan_club(wish: Wish, prices: Prices) -> ClubPlan:
    """The plan of one club.

    Raises
    ------
    InputError
        With the field of the wish: a bend past the limit with what is possible, a grind that cannot be, a length that
        the shaft does not reach, a shaft without a grip.
    """
    stock = wish.stock
    bend = round(wish.loft_deg - stock.head.loft_deg, 4)
    lie_by = 0.0 if wish.lie_deg is None else round(wish.lie_deg - stock.head.lie_deg, 4)
    before = (*wish.bent_before_deg, lie_by) if lie_by else wish.bent_before_deg
    head = bent(stock.head, bend, stock.bend_limit_deg, before) if bend else stock.head
    if lie_by and bend_left(stock.bend_limit_deg, wish.bent_before_deg) < abs(lie_by) - 1e-9:
        left = bend_left(stock.bend_limit_deg, wish.bent_before_deg)
        words = f"past what is left of the head's limit: at most {left:g}° either way"
        raise InputError([Fault("lie_deg", words, str(wish.lie_deg))])
    head = replace(head, lie_deg=head.lie_deg + lie_by)
    cut = ground(head, wish.grind) if wish.grind else None
    head = cut.head if cut else head
    built, weighting = _assembled(wish, head)
    work = tuple(operations(head.loft_deg, head.lie_deg, bend, lie_by, cut, weighting, built))
    parts = 0.0 if stock.owned else stock.price or 0.0
    if wish.shaft is not None and wish.grip is not None:
        parts += wish.shaft.price + wish.grip.price
    left = bend_left(stock.bend_limit_deg, (*before, bend))
    action = action_of(owned=stock.owned, bend_deg=bend, lie_by_deg=lie_by, ground=cut)
    return ClubPlan(
        wish, head, bend, lie_by, left, lie_change(head.loft_deg, lie_by), cut, built, weighting, action, work,
        sum(prices.of(one.key) for one in work), parts, _parts_weeks(wish) + BENCH_WEEKS[action],
        tuple(_notes(wish, weighting)),
    )  # fmt: skip


def _parts_weeks(wish: Wish) -> int:
    """Weeks until head, shaft and grip are all here."""
    head = HEAD_WEEKS if not wish.stock.owned and wish.stock.stock < 1 else 0
    parts = [part.weeks for part in (wish.shaft, wish.grip) if part is not None and part.code in wish.ordered]
    return max(head, *parts, 0)


def _assembled(wish: Wish, head: Head) -> tuple[Assembly | None, Weighting | None]:
    """The whole club and its weights, or nothing where the club keeps its shaft and grip."""
    if wish.shaft is None and wish.grip is None and wish.length_in is None:
        return None, None
    for field in ("shaft", "grip", "length_in"):
        if getattr(wish, field) is None:
            raise InputError([Fault(field, "is missing: a club that is put together has shaft, grip and length")])
    assert wish.shaft is not None
    assert wish.grip is not None
    assert wish.length_in is not None
    grams = 1000.0 * head.mass
    if wish.points is None:
        return assemble(grams, wish.length_in, wish.shaft, wish.grip), None
    found = solve_weight(grams, wish.length_in, wish.shaft, wish.grip, wish.points)
    return assemble(grams, wish.length_in, wish.shaft, wish.grip, found.tip_g, found.butt_g), found


def _notes(wish: Wish, weighting: Weighting | None) -> list[str]:
    found = []
    if not wish.stock.owned and wish.stock.stock < 1:
        found.append("None on the shelf: it has to be ordered.")
    for part in (wish.shaft, wish.grip):
        if part is not None and part.code in wish.ordered:
            weeks = counted(part.weeks, "week")
            found.append(f"No {part.name} on the shelf: it has to be ordered, {weeks}.")
    if not wish.stock.owned and wish.stock.price is None:
        found.append("The rack states no price for this head: the quote is without it.")
    if weighting is not None and abs(weighting.off) > 0.05:
        way = "short of" if weighting.off < 0 else "over"
        found.append(f"{abs(weighting.off):.1f} points {way} the wished swing weight: no more weight fits.")
    return found


@dataclass(frozen=True, slots=True)
class SetPlan:
    """The clubs of a set, those whose swing weight does not match the others, labour, parts, tax, weeks and total."""

    clubs: tuple[ClubPlan, ...]
    unmatched: tuple[int, ...]
    labour: float
    parts: float
    tax: float

    @property
    def total(self) -> float:
        """What the player pays."""
        return self.labour + self.parts + self.tax

    @property
    def weeks(self) -> int:
        """Weeks until the last club is done."""
        return max((club.weeks for club in self.clubs), default=0)


def plan_set(wishes: Sequence[Wish], prices: Prices) -> SetPlan:
    """The plan of a set; raises InputError with `clubs.N.` before the field."""
    clubs = []
    faults: list[Fault] = []
    for n, wish in enumerate(wishes):
        try:
            clubs.append(plan_club(wish, prices))
        except InputError as error:
            faults += [Fault(f"clubs.{n}.{one.field}", one.message, one.value) for one in error.faults]
    if faults:
        raise InputError(faults)
    built = [n for n, club in enumerate(clubs) if club.built is not None]
    off = unmatched([club.built.points for club in clubs if club.built is not None])
    labour, parts = sum(club.labour for club in clubs), sum(club.parts for club in clubs)
    return SetPlan(tuple(clubs), tuple(built[n] for n in off), labour, parts, prices.tax * (labour + parts))
