"""Factor and offset of the units that people usually write, as the units library has them.

They stand here so that a command need not load that library: it takes a third of the time of reading a design. A test
holds both together.
"""

USUAL: dict[str, dict[str, tuple[float, float]]] = {
    "ratio": {"%": (0.01, 0.0)},
    "mass": {"g": (0.001, 0.0), "lb": (0.4535923700000001, 0.0), "oz": (0.028349523125000005, 0.0)},
    "length": {"cm": (0.01, 0.0), "ft": (0.30479999999999996, 0.0), "in": (0.0254, 0.0), "mm": (0.001, 0.0)},
    "distance": {"ft": (0.30479999999999996, 0.0), "km": (1000.0, 0.0), "mm": (0.001, 0.0)},
    "speed": {"ft/s": (0.30479999999999996, 0.0), "km/h": (0.2777777777777778, 0.0), "mph": (0.44704, 0.0)},
    "acceleration": {"ft/s^2": (0.30479999999999996, 0.0)},
    "angular speed": {"rpm": (0.10471975511965977, 0.0)},
    "time": {"h": (3600.0, 0.0), "min": (60.0, 0.0), "ms": (0.001, 0.0)},
    "lead time": {"day": (86400.0, 0.0)},
    "force": {"kN": (1000.0, 0.0), "kg": (9.80665, 0.0), "lbf": (4.4482216152605005, 0.0)},
    "force per width": {"N/mm": (1000.0, 0.0), "lbf/in": (175.12683524647645, 0.0)},
    "stress": {"GPa": (1000000000.0, 0.0), "MPa": (1000000.0, 0.0), "ksi": (6894757.293168363, 0.0)},
    "torque": {
        "N*cm": (0.01, 0.0),
        "N*mm": (0.001, 0.0),
        "kg*cm": (0.0980665, 0.0),
        "lbf*ft": (1.3558179483314006, 0.0),
        "lbf*in": (0.11298482902761671, 0.0),
    },
    "area": {"cm^2": (0.0001, 0.0), "ft^2": (0.09290303999999999, 0.0)},
    "voltage": {"mV": (0.001, 0.0)},
    "current": {"mA": (0.001, 0.0)},
    "resistance": {"mohm": (0.001, 0.0)},
    "speed constant": {"rpm/V": (0.10471975511965977, 0.0)},
    "charge": {"A*h": (3600.0, 0.0), "mA*h": (3.6, 0.0)},
    "energy": {"W*h": (3600.0, 0.0)},
    "power": {"kW": (1000.0, 0.0)},
    "linear density": {"g/m": (0.001, 0.0), "lb/ft": (1.488163943569554, 0.0)},
    "temperature": {"degC": (1.0, 273.15), "degF": (0.5555555555555429, 255.37222222222223)},
    "diametral pitch": {"1/in": (39.37007874015748, 0.0)},
    "angle": {"deg": (0.017453292519943295, 0.0)},
    "grade": {"%": (0.01, 0.0)},
    "use": {"%": (0.01, 0.0)},
}
"""By dimension and unit: SI value = number · factor + offset."""
