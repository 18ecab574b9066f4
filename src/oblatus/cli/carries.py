"""`oblatus carries FILE.json` and `oblatus ladder FILE.json`: every club and swing, and the best ladders of lofts."""

from __future__ import annotations

import json
from argparse import Namespace
from typing import Any

from oblatus.cli.arguments import number, read_text, say
from oblatus.core.bounds import FLIGHT, Bound
from oblatus.core.fitting import Fitting
from oblatus.core.fitting.carries_of import bag_rows, view_carries
from oblatus.core.fitting.fitting import carry_model_of, ladder_choice
from oblatus.core.flight import Air, fly_ball, strike_ball
from oblatus.core.flight.impact import LIE_CLASSES
from oblatus.core.flight.tables import GREENS
from oblatus.core.gapping.finder import PINS
from oblatus.errors import fault
from oblatus.formats.carries import FINDER, CarriesIn, CarriesOut, carries_out, conditions_from
from oblatus.formats.convert import fitting_from
from oblatus.formats.demo import demo_rack
from oblatus.formats.fitting import FittingDocument, load_fitting
from oblatus.formats.proposal_lofts import ladder_out
from oblatus.formats.recommendation import LadderOut


def add_carries(commands: Any) -> None:
    """Register `carries`."""
    parser = commands.add_parser("carries", help="what every club carries with every clock swing")
    parser.add_argument("file", help="a fitting document, - for standard input")
    _add_wind(parser)
    parser.add_argument("--cross", type=number("cross", FLIGHT["wind_cross_mps"]), default=0.0, help="m/s to the right")
    parser.add_argument("--green", choices=GREENS, default="medium")
    parser.add_argument("--lie", choices=LIE_CLASSES, default="dry")
    parser.add_argument("--distance", type=number("distance", FINDER), help="rank the shots for it [m]")
    parser.add_argument("--pin", choices=PINS, default="middle")
    parser.add_argument("--json", action="store_true")
    parser.set_defaults(run=run_carries)


def add_ladder(commands: Any) -> None:
    """Register `ladder`."""
    parser = commands.add_parser("ladder", help="the best ladders of lofts below the pitching wedge")
    parser.add_argument("file", help="a fitting document, - for standard input")
    parser.add_argument("--wedges", type=_wedges, help="how many, such as 3 or 2..4")
    _add_wind(parser)
    parser.add_argument("--json", action="store_true")
    parser.set_defaults(run=run_ladder)


def run_carries(args: Namespace) -> int:
    """Print the matrix."""
    document = load_fitting(read_text(args.file))
    fitting = fitting_from(document, demo_rack())
    asked = CarriesIn(
        wind_head_mps=args.wind,
        wind_cross_mps=args.cross,
        temperature_c=document.measuring.temperature_c,
        altitude_m=document.measuring.altitude_m,
        green=args.green,
        lie=args.lie,
        distance_m=args.distance,
        pin=args.pin,
    )
    view = view_carries(fitting, bag_rows(fitting), conditions_from(asked), asked.distance_m, asked.pin)
    result = carries_out(view, asked, document.strikes)
    say(result.model_dump_json() if args.json else _matrix(result, document))
    return 0


def run_ladder(args: Namespace) -> int:
    """Print the best ladder of every number, and the front of cover against cost."""
    document = load_fitting(read_text(args.file))
    fitting = fitting_from(document, demo_rack())
    choice = ladder_choice(fitting)
    evenest = min(choice.options, key=lambda ladder: ladder.penalty).lofts_deg if choice.options else ()
    low, high = args.wedges or (1, len(choice.options))
    if high > fitting.bag.wedge_room:
        raise fault("wedges", f"the 14 clubs leave room for {fitting.bag.wedge_room}", high)
    best = [ladder for count in range(low, high + 1) for ladder in choice.search.best(count)]
    options = [ladder_out(ladder, choice.options, ladder.lofts_deg == evenest) for ladder in best]
    front = [
        ladder_out(ladder, choice.options, ladder.lofts_deg == evenest)
        for ladder in choice.search.front(high)
        if len(ladder.lofts_deg) >= low
    ]
    windy = {str(loft): _full_carry(fitting, loft, args.wind) for option in options for loft in option.lofts_deg}
    if args.json:
        found = {
            "wind_head_mps": args.wind,
            "ladders": [option.model_dump() for option in options],
            "front": [ladder.model_dump() for ladder in front],
            "full_carry_m": windy,
        }
        say(json.dumps(found, ensure_ascii=False, allow_nan=False))
        return 0
    say("\n".join([_ladder_words(option, windy) for option in options]))
    print("\ncover against cost:")
    for ladder in front:
        lofts = " ".join(f"{loft:g}" for loft in ladder.lofts_deg)
        print(f"  {lofts:<22} leaves {100 * ladder.uncovered_share:2.0f} % of faced distances, cost {ladder.cost:.2f}")
    return 0


def _add_wind(parser: Any) -> None:
    parser.add_argument(
        "--wind", type=number("wind", FLIGHT["wind_head_mps"]), default=0.0, help="m/s at 10 m against the ball"
    )


def _wedges(text: str) -> tuple[int, int]:
    """A number of wedges, or two with dots between."""
    first, dots, last = text.partition("..")
    whole = Bound(1, 4, "wedges")
    low = number("wedges", whole)(first)
    high = number("wedges", whole)(last) if dots else low
    if low != int(low) or high != int(high) or high < low:
        raise fault("wedges", "must be a whole number, or two rising ones such as 2..4", text)
    return int(low), int(high)


def _full_carry(fitting: Fitting, loft_deg: float, wind: float) -> float:
    model = carry_model_of(fitting)
    launch = strike_ball(model.delivery(loft_deg, model.swings[0]))
    air = Air(fitting.air.temperature_c, fitting.air.altitude, wind_head=wind)
    return round(fly_ball(launch, air).carry, 2)


def _matrix(result: CarriesOut, document: FittingDocument) -> str:
    used = f"{result.used} strikes" if result.used else "no strikes"
    lines = [f"{document.player.name}: {used}, {result.aside} set aside", ""]
    for cell in result.cells:
        flight = f"apex {cell.apex_m:4.1f} m  lands {cell.landing_deg:2.0f} deg  spin {cell.spin_rpm:5.0f} rpm"
        lines.append(
            f"{cell.name:>15} {cell.swing_name:>6}  carry {cell.carry_m:5.1f} m "
            f"({cell.low_m:5.1f} to {cell.high_m:5.1f}), a ball ±{cell.spread_m:3.1f}  {flight}  "
            f"run {cell.run_m:+4.1f} m  {cell.source} {cell.count or ''}".rstrip()
        )
    lines += [f"hole: {hole.low_m:.0f} to {hole.high_m:.0f} m" for hole in result.holes]
    lines += [f"overlap: {overlap.words}" for overlap in result.overlaps]
    if result.leave_one_out_m is not None:
        lines.append(f"each strike told by the others: ±{result.leave_one_out_m:.1f} m")
    lines += [f"measure next: {step.words}" for step in result.next[:1]]
    names = {(cell.club, cell.swing): f"{cell.name} {cell.swing_name}" for cell in result.cells}
    for found in result.found:
        lines.append(f"shot: {names[found.club, found.swing]}: {found.reasons}")
    return "\n".join(lines)


def _ladder_words(option: LadderOut, carry: dict[str, float]) -> str:
    lofts = "  ".join(f"{loft:g} deg ({carry[str(loft)]:.0f} m)" for loft in option.lofts_deg)
    gaps = ", ".join(f"{gap:.0f}" for gap in option.gaps_m)
    parts = ", ".join(f"{name} {value:.2f}" for name, value in option.parts.items() if value >= 0.005)
    mark = "  <- taken" if option.chosen else ""
    return (
        f"{len(option.lofts_deg)}: {lofts}{mark}\n   {'; '.join(option.changes)}\n"
        f"   gaps in still air {gaps} m; penalty {option.penalty:.2f}: {parts}\n   {option.gives_up}"
    )
