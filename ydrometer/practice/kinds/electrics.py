"""Volts, cells and currents: how fast a motor turns, what a pack gives, what a start and a shove cost."""

from __future__ import annotations

from ydrometer.base.units import RPM
from ydrometer.document.sources import Constants, Motor, motor_line
from ydrometer.document.supply import Battery, Cells
from ydrometer.practice import rigs
from ydrometer.practice.draw import Again, Draw, times
from ydrometer.practice.posed import Choice, Posed, Sum, choose
from ydrometer.practice.rigs import rig

CELL = 3.7
HOUR = 3600.0


def free_speed(d: Draw) -> Posed:
    """Turns of a motor without load, from its speed constant."""
    kv = d.number(100, 2400, 100 if d.level == 1 else 10)
    cells = d.whole(2, 6)
    volts = d.number(6, 24, 1) if d.level == 1 else round(cells * CELL, 2)
    motor = Motor(constants=Constants(kv=kv / RPM, resistance=0.05, no_load_current=0.0))
    s = Sum()
    s.given("K", "speed constant", kv / RPM, "speed constant")
    if d.level == 1:
        s.given("V", "voltage", volts, "voltage")
        supply = f"at {volts:g} V"
    else:
        s.given("n", "cells in a row", cells)
        s.given("V_c", "voltage of a cell", CELL, "voltage")
        s.step("V", "voltage", "n*V_c", "voltage")
        supply = f"on {times(cells, 'cell')} in a row, {CELL:g} V each"
    s.step("w", "speed without load", "K*V", "angular speed")
    words = f"A motor of {kv:g} rpm/V runs {supply}, without load. How fast does it turn?"
    hints = (
        "The speed constant says how fast it turns for each volt.",
        "How many volts are there?",
        "Multiply the two.",
    )
    mistakes = {"divided instead of multiplied": "K/V"}
    if d.level > 1:
        mistakes |= {"one cell counted": "K*V_c"}
    return s.number(
        d,
        words,
        "angular speed",
        volts / motor_line(motor).ke,
        mistakes,
        hints,
        rig([], volts=volts, turns=kv / RPM * volts),
        "speed = speed constant · voltage",
    )


def series_parallel(d: Draw) -> Posed:
    """Voltage, charge or resistance of a pack of cells."""
    series, parallel = d.whole(2, 8), d.whole(2, 5)
    if series == parallel:
        raise Again
    volts, charge, ohm = (
        d.choice((1.2, 3.2, 3.6, 3.7)),
        d.choice((2.0, 2.5, 3.0, 4.0, 5.0)),
        d.number(0.008, 0.04, 0.002),
    )
    pack = Battery(
        cells=Cells(
            series=series, parallel=parallel, cell_voltage=volts, cell_resistance=ohm, cell_capacity=charge * HOUR
        )
    )
    s = Sum()
    s.given("n", "cells in a row", series)
    s.given("k", "rows side by side", parallel)
    built = f"A pack has {series} cells in a row, and {parallel} such rows side by side."
    hints = (
        "In a row: the same current passes every cell.",
        "Side by side: the voltage of all rows is the same.",
        "Decide which of the two numbers counts for what is asked, and how.",
    )
    design = rig([], volts=series * volts)
    wanted = "voltage" if d.level == 1 else d.choice(("charge", "resistance"))
    if wanted == "voltage":
        s.given("V_c", "voltage of a cell", volts, "voltage")
        s.step("V", "voltage of the pack", "n*V_c", "voltage")
        mistakes = {"series and parallel mixed up": "k*V_c", "all cells counted": "n*k*V_c", "one cell counted": "V_c"}
        return s.number(
            d,
            f"{built} A cell has {volts:g} V. What voltage has the pack?",
            "voltage",
            pack.voltage,
            mistakes,
            hints,
            design,
            "voltage of the pack = cells in a row · voltage of a cell",
        )
    if wanted == "charge":
        s.given("Q_c", "charge of a cell", charge * HOUR, "charge")
        s.step("Q", "charge of the pack", "k*Q_c", "charge")
        mistakes = {"series and parallel mixed up": "n*Q_c", "all cells counted": "n*k*Q_c", "one cell counted": "Q_c"}
        return s.number(
            d,
            f"{built} A cell holds {charge:g} A·h. How much charge does the pack give?",
            "charge",
            pack.charge or 0.0,
            mistakes,
            hints,
            design,
            "charge of the pack = rows side by side · charge of a cell",
        )
    s.given("R_c", "resistance of a cell", ohm, "resistance")
    s.step("R", "resistance of the pack", "R_c*n/k", "resistance")
    mistakes = {"series and parallel mixed up": "R_c*k/n", "all cells counted": "R_c*n*k", "one cell counted": "R_c"}
    words = f"{built} A cell has a resistance of {d.say(ohm, 'resistance')}. What resistance has the pack?"
    return s.number(
        d,
        words,
        "resistance",
        pack.internal_resistance,
        mistakes,
        hints,
        design,
        "resistance of the pack = cells in a row · resistance of a cell / rows side by side",
    )


def sag(d: Draw) -> Posed:
    """Voltage of a battery under load."""
    volts = d.number(7, 26, 0.5)
    ohm, current = d.number(0.01, 0.12, 0.01 if d.level == 1 else 0.002), d.number(10, 80, 5 if d.level == 1 else 1)
    if not 0.06 * volts < ohm * current < 0.45 * volts:
        raise Again
    pack = Battery(open_circuit_voltage=volts, resistance=ohm)
    (line,) = pack.pieces
    s = Sum()
    s.given("V", "voltage at rest", volts, "voltage")
    s.given("R", "resistance of the battery", ohm, "resistance")
    s.given("I", "current", current, "current")
    s.step("U", "lost inside", "I*R", "voltage")
    s.step("V_l", "voltage under load", "V - U", "voltage")
    words = (
        f"A battery has {volts:g} V at rest and a resistance of {d.say(ohm, 'resistance')} inside. What voltage "
        "is left at its leads "
        f"while it gives {current:g} A?"
    )
    hints = (
        "The current passes the resistance inside the battery too.",
        "Volts lost: current times resistance.",
        f"Mind the unit: {d.say(ohm, 'resistance')} are {ohm:g} ohms.",
    )
    mistakes = {"sag forgotten": "V", "sag added": "V + U"}
    return s.number(
        d,
        words,
        "voltage",
        (line.s - line.q * current) / line.p,
        mistakes,
        hints,
        rig([], volts=volts, pack=ohm),
        "voltage = voltage at rest − current · resistance",
    )


def start_current(d: Draw) -> Posed:
    """Current in the moment of the start, with nothing that limits it."""
    volts, motor = d.number(6, 24, 1), d.number(0.04, 0.3, 0.02 if d.level == 1 else 0.005)
    pack = 0.0 if d.level == 1 else d.number(0.01, 0.08, 0.005)
    raw = rig([], volts=volts, resistance=motor, pack=pack)
    s = Sum()
    s.given("V", "voltage at rest", volts, "voltage")
    s.given("R_m", "resistance of the winding", motor, "resistance")
    s.given("R_b", "resistance of the battery", pack, "resistance")
    s.step("R", "resistance in the way", "R_m + R_b", "resistance")
    s.step("I", "current", "V/R", "current")
    battery = "a supply that keeps its voltage" if pack == 0.0 else f"a battery with {d.say(pack, 'resistance')} inside"
    words = (
        f"A motor whose winding has {d.say(motor, 'resistance')} is switched straight onto {battery}, {volts:g} "
        "V at rest. What current "
        "flows in the moment it starts, before it turns?"
    )
    hints = (
        "A motor that stands gives no voltage of its own.",
        "Only resistance limits the current.",
        f"Mind the unit: {d.say(motor, 'resistance')} are {motor:g} ohms.",
    )
    mistakes = {"multiplied instead of divided": "V*R"}
    if pack:
        mistakes |= {"pack forgotten": "V/R_m", "pack alone": "V/R_b"}
    return s.number(
        d,
        words,
        "current",
        rigs.measured(raw, "launch_motor_current"),
        mistakes,
        hints,
        raw,
        "current = voltage / all resistance in the way",
    )


def which_controller(d: Draw) -> Posed:
    """The smallest controller that stands the start."""
    volts, motor = d.number(6, 20, 1), d.number(0.06, 0.3, 0.01)
    pack = 0.0 if d.level == 1 else d.number(0.01, 0.06, 0.005)
    raw = rig([], volts=volts, resistance=motor, pack=pack)
    start = rigs.measured(raw, "launch_motor_current")
    running = round(start * d.number(0.1, 0.3, 0.02))
    if not 15.0 < start < 250.0:
        raise Again
    small = max(5 * round(running * 1.3 / 5), 5)
    offered = [small, 5 * round(start * 0.6 / 5), 5 * (int(start * 1.1 / 5) + 1), 5 * (int(start * 1.9 / 5) + 1)]
    if sorted(set(offered)) != offered or offered[1] < CLEAR * running:
        raise Again
    s = Sum()
    s.given("V", "voltage at rest", volts, "voltage")
    s.given("R_m", "resistance of the winding", motor, "resistance")
    s.given("R_b", "resistance of the battery", pack, "resistance")
    s.given("I_r", "current while it runs", running, "current")
    s.step("I", "current at the start", "V/(R_m + R_b)", "current")
    inside = f", with {d.say(pack, 'resistance')} inside" if pack else ""
    words = (
        f"A motor of {d.say(motor, 'resistance')} runs on {volts:g} V{inside}. While it runs it draws "
        f"{running:g} A. Controllers for at most "
        f"{', '.join(f'{rating:g} A' for rating in offered[:-1])} and {offered[-1]:g} A are on the shelf, and none of "
        "them limits the current "
        "by itself. Which is the smallest that stands a hard start?"
    )
    hints = (
        "A controller burns in the moment in which most current flows.",
        "When does the motor give no voltage of its own?",
        "Divide the voltage by all resistance in the way.",
    )
    choices = [Choice(f"{rating:g}", f"{rating:g} A") for rating in offered]
    names = {
        f"{offered[0]:g}": "running current taken",
        f"{offered[1]:g}": "too small for the start",
        f"{offered[3]:g}": "largest taken",
    }
    return choose(
        words,
        choices,
        f"{offered[2]:g}",
        names,
        hints,
        raw,
        "current at the start = voltage / resistance",
        s.sheet,
        said={"offered": offered},
    )


CLEAR = 1.3


def shove(d: Draw) -> Posed:
    """Heat of a shove against a wall."""
    count = 1 if d.level == 1 else d.choice((2, 4))
    current, ohm, volts = (
        d.number(10, 60, 5 if d.level == 1 else 1),
        d.number(0.03, 0.2, 0.01 if d.level == 1 else 0.005),
        24.0,
    )
    if not 1.3 < ohm * current < 0.7 * volts or not 20.0 < ohm * current**2 * count < 2000.0:
        raise Again
    raw = rig([], volts=volts, resistance=ohm, limit=current, count=count)
    heat = volts * rigs.measured(raw, "pushing_bus_current")
    s = Sum()
    s.given("k", "motors", count)
    s.given("I", "current of each motor", current, "current")
    s.given("R", "resistance of a winding", ohm, "resistance")
    s.given("V", "voltage of the supply", volts, "voltage")
    s.step("P_1", "heat in one motor", "I*I*R", "power")
    s.step("P", "heat in all", "k*P_1", "power")
    who = (
        "A motor pushes against a wall and stands still"
        if count == 1
        else f"{count} motors push against a wall and stand still"
    )
    each = "" if count == 1 else " each"
    words = (
        f"{who}. The controller holds {current:g} A{each}, the winding has {d.say(ohm, 'resistance')}{each}, "
        f"the supply {volts:g} V. How much power turns into heat in the {'motor' if count == 1 else 'motors'}?"
    )
    hints = (
        "Nothing moves: all power that goes in becomes heat.",
        "Volts across a winding: current times resistance.",
        "Power: volts across the winding times current.",
    )
    mistakes = {"current not squared": "k*I*R", "whole voltage taken": "k*V*I"}
    if count > 1:
        mistakes["one motor counted"] = "P_1"
    return s.number(d, words, "power", heat, mistakes, hints, raw, "heat = motors · current² · resistance")
