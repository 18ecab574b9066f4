"""`oblatus deliver` and `oblatus flight`: the physics from a shell."""

from __future__ import annotations

from argparse import Namespace
from typing import Any

from oblatus.cli.arguments import number, show
from oblatus.core.bounds import FLIGHT, IMPACT, Bound
from oblatus.core.clubs import Head
from oblatus.core.delivery import Swing
from oblatus.core.figures import figures, in_engine
from oblatus.core.flight import LIE_FRICTION, LIE_SPEED_FACTOR, Air, Delivery, Green, Launch, fly_ball, strike_ball
from oblatus.core.flight.impact import LIE_CLASSES, LieClass
from oblatus.core.geometry import HANDS_DROP, deliver
from oblatus.errors import Fault, InputError

HANDS_DROP_BOUND = Bound(0, 0.5, "degrees a degree")


def add_deliver(commands: Any) -> None:
    """Register `deliver`."""
    parser = commands.add_parser("deliver", help="delivered loft, bounce, face direction and edge height")
    for record in (f for f in figures(Head).values() if f.flag):
        parser.add_argument(
            f"--{record.flag}", dest=record.key, type=number(record.key, record.bound), required=record.usual is None,
            default=record.usual, help=f"{record.words.lower()} [{record.bound.unit or '-'}]",
        )  # fmt: skip
    setup = figures(Swing)
    parser.add_argument("--lean", type=number("lean_deg", setup["lean_deg"].bound), default=0.0)
    parser.add_argument("--open", type=number("opening_deg", setup["opening_deg"].bound), default=0.0)
    parser.add_argument("--hand", choices=("right", "left"), default="right")
    parser.add_argument("--hands-drop", type=number("hands_drop", HANDS_DROP_BOUND), default=HANDS_DROP)
    parser.add_argument("--json", action="store_true")
    parser.set_defaults(run=run_deliver)


def run_deliver(args: Namespace) -> int:
    """Print the delivered geometry of one head."""
    head = Head(**in_engine(Head, args))
    found = deliver(head, args.lean, args.open, args.hand, args.hands_drop)
    show(
        {
            "delivered_loft_deg": _tidy(found.loft_deg),
            "delivered_bounce_deg": _tidy(found.bounce_deg),
            "face_direction_deg": _tidy(found.face_direction_deg),
            "leading_edge_height_mm": _tidy(1000 * found.leading_edge_height),
        },
        args.json,
    )
    return 0


def add_flight(commands: Any) -> None:
    """Register `flight`."""
    parser = commands.add_parser("flight", help="one ball: from its launch, or from the club")
    for flag, field in (
        ("ball-speed", "ball_speed_mps"),
        ("launch", "launch_deg"),
        ("spin", "spin_rpm"),
        ("direction", "direction_deg"),
        ("axis", "axis_deg"),
    ):
        parser.add_argument(f"--{flag}", type=number(field, FLIGHT[field]))
    for flag, field in (
        ("club-speed", "club_speed_mps"),
        ("dynamic-loft", "dynamic_loft_deg"),
        ("attack", "attack_deg"),
        ("face", "face_deg"),
        ("path", "path_deg"),
    ):
        parser.add_argument(f"--{flag}", type=number(field, IMPACT[field]))
    parser.add_argument("--lie-condition", choices=LIE_CLASSES)
    for flag, field, usual in (
        ("wind-head", "wind_head_mps", 0.0),
        ("wind-cross", "wind_cross_mps", 0.0),
        ("temperature", "temperature_c", 25.0),
        ("altitude", "altitude_m", 0.0),
        ("humidity", "humidity", 0.5),
        ("firmness", "firmness", 0.5),
        ("stimp", "stimp_ft", 10.0),
    ):
        parser.add_argument(f"--{flag}", type=number(field, FLIGHT[field]), default=usual)
    parser.add_argument("--json", action="store_true")
    parser.set_defaults(run=run_flight)


def run_flight(args: Namespace) -> int:
    """Print the flight of one ball; with a club, its launch too."""
    launch, from_club = _launch(args)
    air = Air(args.temperature, args.altitude, args.humidity, args.wind_head, args.wind_cross)
    flight = fly_ball(launch, air, Green(args.firmness, args.stimp))
    answer: dict[str, Any] = {}
    if from_club:
        answer = {
            "ball_speed_mps": _tidy(launch.ball_speed),
            "launch_deg": _tidy(launch.launch_deg),
            "direction_deg": _tidy(launch.direction_deg),
            "spin_rpm": _tidy(launch.spin_rpm),
            "axis_deg": _tidy(launch.axis_deg),
        }
    answer |= {
        "carry_m": _tidy(flight.carry),
        "apex_m": _tidy(flight.apex),
        "landing_deg": _tidy(flight.landing_deg),
        "lateral_m": _tidy(flight.lateral),
        "time_s": _tidy(flight.time),
        "landing_speed_mps": _tidy(flight.landing_speed),
        "landing_spin_rpm": _tidy(flight.landing_spin_rpm),
        "run_m": _tidy(flight.run),
    }
    if not flight.landed:
        raise InputError([Fault("flight", "the ball was still up after the longest time flown")])
    show(answer, args.json)
    return 0


def _launch(args: Namespace) -> tuple[Launch, bool]:
    ball = {"ball_speed_mps": args.ball_speed, "launch_deg": args.launch, "spin_rpm": args.spin}
    ball_extra = {"direction_deg": args.direction, "axis_deg": args.axis}
    club = {"club_speed_mps": args.club_speed, "dynamic_loft_deg": args.dynamic_loft}
    club_extra = {
        "attack_deg": args.attack,
        "face_deg": args.face,
        "path_deg": args.path,
        "lie_condition": args.lie_condition,
    }
    if _given(ball | ball_extra) and _given(club | club_extra):
        field = _given(club | club_extra)[0]
        raise InputError(
            [Fault(field, "goes with the club, not with a ball speed, launch or spin: give one or the other")]
        )
    wanted = club if _given(club | club_extra) else ball
    missing = [field for field, value in wanted.items() if value is None]
    if missing:
        bounds = IMPACT if wanted is club else FLIGHT
        raise InputError([Fault(field, f"is missing; {bounds[field].words()}") for field in missing])
    if wanted is ball:
        return Launch(args.ball_speed, args.launch, args.direction or 0.0, args.spin, args.axis or 0.0), False
    lie: LieClass = args.lie_condition or "dry"
    delivery = Delivery(
        speed=args.club_speed * LIE_SPEED_FACTOR[lie],
        dynamic_loft_deg=args.dynamic_loft,
        attack_deg=-5.0 if args.attack is None else args.attack,
        face_deg=args.face or 0.0,
        path_deg=args.path or 0.0,
        friction=LIE_FRICTION[lie],
    )
    return strike_ball(delivery), True


def _given(fields: dict[str, Any]) -> list[str]:
    return [field for field, value in fields.items() if value is not None]


def _tidy(value: float) -> float:
    return round(float(value), 4) + 0.0
