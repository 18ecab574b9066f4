"""Air: density and viscosity from weather and altitude."""

from __future__ import annotations

import math
from dataclasses import dataclass

from oblatus.core.bounds import FLIGHT, check_all


@dataclass(frozen=True, slots=True)
class Air:
    """Air at the ball and the wind at 10 m.

    Parameters
    ----------
    temperature_c : air temperature [degrees C]
    altitude : height above sea level [m]
    humidity : relative humidity, 0..1
    wind_head : wind against the ball at 10 m [m/s], tail wind negative
    wind_cross : wind at 10 m that pushes the ball right [m/s]
    """

    temperature_c: float = 25.0
    altitude: float = 0.0
    humidity: float = 0.5
    wind_head: float = 0.0
    wind_cross: float = 0.0

    def __post_init__(self) -> None:
        check_all(
            {
                "temperature_c": self.temperature_c,
                "altitude_m": self.altitude,
                "humidity": self.humidity,
                "wind_head_mps": self.wind_head,
                "wind_cross_mps": self.wind_cross,
            },
            FLIGHT,
        )

    @property
    def density(self) -> float:
        """Density of the moist air [kg/m^3]: barometric pressure, Magnus vapour pressure, two ideal gases."""
        kelvin = self.temperature_c + 273.15
        pressure = 101325.0 * (1.0 - 2.25577e-5 * self.altitude) ** 5.25588
        vapour = self.humidity * 610.94 * math.exp(17.625 * self.temperature_c / (self.temperature_c + 243.04))
        return float((pressure - vapour) / (287.058 * kelvin) + vapour / (461.495 * kelvin))

    @property
    def viscosity(self) -> float:
        """Dynamic viscosity [Pa s], Sutherland's law."""
        kelvin = self.temperature_c + 273.15
        return float(1.458e-6 * kelvin**1.5 / (kelvin + 110.4))


REFERENCE_AIR = Air()
