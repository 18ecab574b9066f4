"""Impact, trajectory and landing of the ball."""

from oblatus.core.flight.air import REFERENCE_AIR, Air
from oblatus.core.flight.impact import LIE_FRICTION, LIE_SPEED_FACTOR, Delivery, Launch, strike_ball
from oblatus.core.flight.trajectory import GREEN_FIRMNESS, Flight, Green, flight_path, fly_ball

__all__ = [
    "GREEN_FIRMNESS",
    "LIE_FRICTION",
    "LIE_SPEED_FACTOR",
    "REFERENCE_AIR",
    "Air",
    "Delivery",
    "Flight",
    "Green",
    "Launch",
    "flight_path",
    "fly_ball",
    "strike_ball",
]
