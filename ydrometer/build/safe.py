"""What keeps hands safe while a vehicle is put together, in words of what it has: a pack, a panel, an engine."""

from __future__ import annotations

from ydrometer.document.design import Design
from ydrometer.document.sources import Engine
from ydrometer.document.vehicle import Vehicle

OFF = {
    "battery": "battery disconnected",
    "panel": "panel covered and disconnected",
    "bench": "supply switched off and unplugged",
}
"""What makes a line dead, by the kind of its supply."""
OPEN_WIRES = {
    "battery": "Battery disconnected while wires are open; a short across it burns.",
    "panel": "Panel covered while wires are open: in the sun it is live, and no switch turns it off.",
    "bench": "Supply switched off and unplugged while wires are open; what hangs on the mains is for licensed people.",
}
ENGINE = "Cold engine, out of doors; never above its safe speed, and never defeat the governor."
FUEL = "Fuel out of doors, engine cold, no flame or spark near; wipe up what is spilt, can closed and away first."
EXHAUST = "Exhaust poisons: run it out of doors only. Exhaust pipe and cylinder burn for long after it has stopped."
SPRINGS = "Plug cap off. Springs of a clutch or starter jump: eye protection, and never open one that is wound."


def has_engine(design: Design) -> bool:
    """Whether an engine drives it."""
    return any(isinstance(branch.source, Engine) for branch in design.drive.branches)


def dead(design: Design) -> str:
    """What is done before hands go in, as a sentence begins: "Battery disconnected"."""
    supply = design.drive.supply
    ways = [OFF[supply.kind]] if supply else []
    ways += ["plug cap off and engine cold"] if has_engine(design) else []
    words = ", ".join(ways)
    return words[0].upper() + words[1:]


def fingers(design: Design) -> str:
    """The caution at every place where something can be turned."""
    return f"{dead(design)}, and what turns blocked, while hands are in here; turning by hand draws fingers in too."


def look(design: Design) -> str:
    """The caution before a look at a line that has run."""
    return f"{dead(design)} before hands go in."


def running(design: Design) -> tuple[str, ...]:
    """Cautions wherever an engine may run."""
    return (ENGINE, EXHAUST) if has_engine(design) else ()


def has_brakes(vehicle: Vehicle) -> bool:
    """Whether it has brakes, or has to have some: wherever a braking force is known, or somebody rides."""
    return vehicle.brake_force is not None or vehicle.payload > 0.0
