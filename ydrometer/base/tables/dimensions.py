"""The kinds of quantity a design holds, with the units people write and read them in.

`si` is the unit inside the core. `metric` and `inch` are what the page shows when the user
has typed nothing of their own; `example` is what an error offers as a right answer.
Conversion factors are not here: the units library has them.
"""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Dimension:
    """One kind of quantity: its SI unit, its usual display units and an example as typed."""

    name: str
    si: str
    metric: str
    inch: str
    example: str


_ROWS = (
    # name                 si            metric      inch       example
    ("ratio", "", "", "", "0.8 or 80 %"),
    ("mass", "kg", "kg", "lb", "12.5 kg"),
    ("length", "m", "mm", "in", "125 mm or 3 1/4 in"),
    ("distance", "m", "m", "ft", "25 m"),
    ("speed", "m/s", "m/s", "mph", "5 m/s or 12 mph"),
    ("acceleration", "m/s^2", "m/s^2", "ft/s^2", "3 m/s^2"),
    ("angular speed", "rad/s", "rpm", "rpm", "7400 rpm"),
    ("time", "s", "s", "s", "3.5 s"),
    ("lead time", "s", "day", "day", "7 days"),
    ("force", "N", "N", "lbf", "90 N"),
    ("force per width", "N/m", "N/mm", "lbf/in", "8 N/mm"),
    ("stress", "Pa", "MPa", "ksi", "240 MPa"),
    ("heat capacity", "J/K", "J/K", "J/K", "45 J/K"),
    ("thermal resistance", "K/W", "K/W", "K/W", "1.1 K/W"),
    ("torque", "N*m", "N*m", "lbf*in", "0.9 N*m"),
    ("inertia", "kg*m^2", "kg*m^2", "kg*m^2", "4.2e-5 kg*m^2"),
    ("area", "m^2", "m^2", "ft^2", "0.05 m^2"),
    ("voltage", "V", "V", "V", "14.8 V"),
    ("current", "A", "A", "A", "60 A"),
    ("resistance", "ohm", "mohm", "mohm", "38 mohm"),
    ("speed constant", "rad/s/V", "rpm/V", "rpm/V", "420 rpm/V"),
    ("voltage per speed", "V*s/rad", "V*s/rad", "V*s/rad", "0.023 V*s/rad"),
    ("torque per current", "N*m/A", "N*m/A", "N*m/A", "0.023 N*m/A"),
    ("charge", "A*s", "A*h", "A*h", "5 A*h"),
    ("energy", "J", "J", "J", "800 J"),
    ("power", "W", "W", "W", "350 W"),
    ("density", "kg/m^3", "kg/m^3", "kg/m^3", "1.2 kg/m^3"),
    ("linear density", "kg/m", "g/m", "lb/ft", "60 g/m"),
    ("frequency", "Hz", "Hz", "Hz", "45 Hz"),
    ("temperature", "K", "degC", "degF", "25 degC"),
    ("temperature rise", "K", "K", "K", "40 K"),
    ("diametral pitch", "1/m", "1/in", "1/in", "32 1/in"),
    ("price", "", "", "", "240"),
    ("angle", "rad", "deg", "deg", "20 deg"),
    ("grade", "", "%", "%", "0.18 or 18 %"),
    ("use", "", "%", "%", "0.9 or 90 %"),
)

DIMENSIONS = {row[0]: Dimension(*row) for row in _ROWS}
