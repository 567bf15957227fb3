"""A design with its battery near the end: less voltage, more resistance."""

from __future__ import annotations

from dataclasses import replace

from ydrometer.base.seen import Value
from ydrometer.document.design import Document
from ydrometer.document.supply import Battery

GONE = 0.8
"""Share of the charge that is gone."""
VOLTAGE_LEFT = 0.90
"""Share of the open-circuit voltage that is left then, of a battery whose discharge is not known."""
MORE_RESISTANCE = 1.5
"""How many times its resistance it has then (makers' data of lithium cells: below a fifth of their charge)."""
SUPPLY = "drive.supply"


def near_empty(document: Document) -> Document | None:
    """The same design with its battery near the end; None of one without a battery."""
    battery = document.design.drive.supply
    if not isinstance(battery, Battery):
        return None
    drive = replace(document.design.drive, supply=emptied(battery))
    return Document(replace(document.design, drive=drive), _values(document, battery), document.assumed)


def emptied(battery: Battery) -> Battery:
    """A battery near its end, told as a whole."""
    voltage = battery.emptied(GONE) if battery.discharge else VOLTAGE_LEFT * battery.voltage
    resistance = MORE_RESISTANCE * battery.internal_resistance
    return replace(battery, cells=None, open_circuit_voltage=voltage, resistance=resistance, capacity=battery.charge)


def _values(document: Document, battery: Battery) -> dict[str, Value]:
    """What was typed, with the two of the battery near its end in place of what it is made of."""
    left, kept = emptied(battery), dict(document.values)
    for path in [path for path in kept if path.startswith(f"{SUPPLY}.cells")]:
        del kept[path]
    curve = battery.discharge
    note = f"{100.0 * GONE:.0f} % of its charge gone" if curve else f"{100.0 * VOLTAGE_LEFT:.0f} % of a full one"
    volts, ohms = left.voltage, left.internal_resistance
    kept[f"{SUPPLY}.open_circuit_voltage"] = Value(volts, "voltage", "given" if curve else "assumed", note=note)
    more = f"{MORE_RESISTANCE:g} times that of a full one"
    kept[f"{SUPPLY}.resistance"] = Value(ohms, "resistance", "assumed", note=more)
    return kept
