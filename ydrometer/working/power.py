"""Pieces of workings about sources and their supply: ratios, currents, torques, the driving force."""

from __future__ import annotations

from collections.abc import Iterator

from ydrometer.document.drive import Branch
from ydrometer.document.sources import Engine, Motor
from ydrometer.document.stages import Stage
from ydrometer.document.stages.steps import Derived
from ydrometer.document.supply import Battery, BenchSupply, Panel
from ydrometer.motion.trace import Sources
from ydrometer.working.blocks import WorkingCase, radius, weight


def _stage(case: WorkingCase, symbol: str, path: str, stage: Stage, gear: int) -> None:
    """Torque ratio, speed ratio where something slips, and efficiency of one stage."""
    s = case.sheet
    for step in stage.working(symbol, gear):
        if isinstance(step, Derived):
            s.step(step.symbol, step.words, step.formula, "ratio")
            continue
        place = f"{path}.{step.key}" if step.key else path
        if step.value is None:
            s.given(step.symbol, step.words, place)
        else:
            s.put(step.symbol, step.words, step.value, "ratio", "given", place)
    s.given(f"eta_{symbol}", f"efficiency of the {stage.noun}", f"{path}.efficiency", 1.0)


def _row(case: WorkingCase, name: str, prefix: str, stages: tuple[Stage, ...], gear: int) -> None:
    """Ratios and efficiency of stages in a row: i_name, j_name (speeds), eta_name."""
    numbers = [f"{name}{k + 1}" for k in range(len(stages))]
    for number, (k, stage) in zip(numbers, enumerate(stages), strict=True):
        _stage(case, number, f"{prefix}.stages[{k}]", stage, gear)
    speeds = [f"j_{n}" if f"j_{n}" in case.sheet.known else f"i_{n}" for n in numbers]
    place = "of the trunk" if name == "t" else "of the branch"
    step = case.sheet.step
    step(f"i_{name}", f"torque ratio {place}", "*".join(f"i_{n}" for n in numbers) or "1", "ratio")
    step(f"j_{name}", f"speed ratio {place}", "*".join(speeds) or "1", "ratio")
    step(f"eta_{name}", f"efficiency {place}", "*".join(f"eta_{n}" for n in numbers) or "1", "ratio")


def ratios(case: WorkingCase, gear: int) -> None:
    """The overall ratio G of every branch in a gear."""
    drive = case.design.drive
    _row(case, "t", "drive", drive.stages, gear)
    for b, branch in enumerate(drive.branches):
        _row(case, f"b{b + 1}", f"drive.branches[{b}]", branch.stages, gear)
        words = "source turns per wheel turn"
        case.sheet.step(f"G{case.suffix(b)}", words, f"j_b{b + 1}*j_t", "ratio")


def _constants(case: WorkingCase, b: int, motor: Motor) -> None:
    """ke, kt, R and I0 of a motor, from whichever set of numbers was given."""
    s, x, path = case.sheet, case.suffix(b), f"drive.branches[{b}].source"
    if motor.constants is not None:
        s.given(f"K_v{x}", "speed constant", f"{path}.constants.kv")
        s.given(f"R_w{x}", "resistance of the winding", f"{path}.constants.resistance")
        s.given(f"I_0{x}", "no-load current", f"{path}.constants.no_load_current")
        s.step(f"k_e{x}", "voltage per speed", f"1/K_v{x}", "voltage per speed")
        s.step(f"k_t{x}", "torque per current", f"1/K_v{x}", "torque per current")
    else:
        points = f"{path}.bench_points"
        s.given(f"V_n{x}", "nominal voltage", f"{points}.nominal_voltage")
        s.given(f"w_f{x}", "free speed", f"{points}.free_speed")
        s.given(f"I_0{x}", "free current", f"{points}.free_current")
        s.given(f"T_s{x}", "stall torque", f"{points}.stall_torque")
        s.given(f"I_s{x}", "stall current", f"{points}.stall_current")
        s.step(f"R_w{x}", "resistance of the winding", f"V_n{x}/I_s{x}", "resistance")
        s.step(f"k_e{x}", "voltage per speed", f"(V_n{x} - I_0{x}*R_w{x})/w_f{x}", "voltage per speed")
        s.step(f"k_t{x}", "torque per current", f"T_s{x}/(I_s{x} - I_0{x})", "torque per current")
    s.given(f"R_c{x}", "controller and leads", f"drive.branches[{b}].controller.resistance")
    s.step(f"R{x}", "resistance in all", f"R_w{x} + R_c{x}", "resistance")


def supply(case: WorkingCase, state: Sources) -> None:
    """Bus voltage and current, found so that motors and supply agree."""
    s, source = case.sheet, case.design.drive.supply
    if source is None:
        return
    if isinstance(source, Panel):
        s.put("V_b", "bus voltage", state.bus_voltage, "voltage", "solved")
        s.step("I_bus", "current of the panel at that voltage", _panel_current(case, source, state), "current")
        return
    s.put("I_bus", "current of the supply", state.bus_current, "current", "solved")
    open_circuit(case)
    _resistance(case)
    s.step("V_b", "bus voltage", "V_oc - R_b*I_bus", "voltage")


def _panel_current(case: WorkingCase, source: Panel, state: Sources) -> str:
    s, path = case.sheet, "drive.supply"
    open_circuit(case)
    s.given("V_mp", "voltage at most power", f"{path}.max_power_voltage")
    s.given("I_mp", "current at most power", f"{path}.max_power_current")
    s.given("I_sc", "current when shorted", f"{path}.short_circuit_current")
    if state.bus_voltage >= source.max_power_voltage:
        return "max(I_mp*(V_oc - V_b)/(V_oc - V_mp), 0)"
    return "I_sc - (I_sc - I_mp)*V_b/V_mp"


def open_circuit(case: WorkingCase) -> None:
    """Voltage of the supply when nothing flows, V_oc."""
    s, path, source = case.sheet, "drive.supply", case.design.drive.supply
    if isinstance(source, Battery) and source.cells is not None:
        s.put("n_s", "cells in series", source.cells.series, "ratio", "given", f"{path}.cells.series")
        s.given("V_c", "voltage of a cell", f"{path}.cells.cell_voltage")
        s.step("V_oc", "open-circuit voltage", "n_s*V_c", "voltage")
    elif isinstance(source, BenchSupply):
        s.given("V_oc", "voltage", f"{path}.voltage")
    else:
        s.given("V_oc", "open-circuit voltage", f"{path}.open_circuit_voltage")


def _resistance(case: WorkingCase) -> None:
    """Of the supply, R_b, of which the voltage is known."""
    s, path, source = case.sheet, "drive.supply", case.design.drive.supply
    if not isinstance(source, Battery):
        s.put("R_b", "internal resistance", 0.0, "resistance")
    elif source.cells is None:
        s.given("R_b", "internal resistance", f"{path}.resistance")
    else:
        s.put("n_p", "rows in parallel", source.cells.parallel, "ratio", "given", f"{path}.cells.parallel")
        s.given("R_cell", "resistance of a cell", f"{path}.cells.cell_resistance")
        s.given("R_x", "leads and connectors", f"{path}.cells.extra_resistance")
        s.step("R_b", "internal resistance", "R_cell*n_s/n_p + R_x", "resistance")


def sources(case: WorkingCase, state: Sources) -> None:
    """Speed, current and torque of every source at the speed v, and the supply that feeds them."""
    supply(case, state)
    s, drive = case.sheet, case.design.drive
    radius(case)
    ratios(case, state.gear)
    s.put("n_u", "drive units", drive.units, "ratio", "given", "drive.units")
    if any(isinstance(b.source, Motor) for b in drive.branches):
        duty = min(1.0, state.applied / state.bus_voltage)
        s.put("d", "duty: share of the bus voltage that reaches the motors", duty, "ratio", "solved")
    demand = []
    for b, branch in enumerate(drive.branches):
        x = case.suffix(b)
        s.put(f"n{x}", "sources a unit", branch.count, "ratio", "given", f"drive.branches[{b}].count")
        s.step(f"w{x}", "speed behind the source", f"v*G{x}/r", "angular speed")
        if isinstance(branch.source, Engine):
            _engine(case, b, branch, state)
        else:
            _motor(case, b, branch, branch.source, state)
            demand.append(f"n_u*n{x}*I{x}*(I{x}*R{x} + E{x})")
    if demand:
        s.step("I_bus", "the same current from the motors' side", f"({' + '.join(demand)})/V_b", "current", check=True)


def _motor(case: WorkingCase, b: int, branch: Branch, motor: Motor, state: Sources) -> None:
    s, x = case.sheet, case.suffix(b)
    _constants(case, b, motor)
    s.step(f"E{x}", "back-EMF", f"k_e{x}*w{x}", "voltage")
    driven = f"(d*V_b - E{x})/R{x}"
    if branch.controller and branch.controller.current_limit:
        s.given(f"I_lim{x}", "the controller's limit", f"drive.branches[{b}].controller.current_limit")
        driven = f"max(-I_lim{x}, {driven})" if state.backwards else f"min(I_lim{x}, {driven})"
    s.step(f"I{x}", "current of one motor", driven, "current")
    s.step(f"T{x}", "torque of one motor", f"k_t{x}*(I{x} - I_0{x})", "torque")


def _engine(case: WorkingCase, b: int, branch: Branch, state: Sources) -> None:
    s, x, engine = case.sheet, case.suffix(b), branch.source
    assert isinstance(engine, Engine)
    s.given(f"w_c{x}", "speed at which the clutch engages", f"drive.branches[{b}].clutch.engagement_speed")
    speed = s.step(f"w_e{x}", "speed of the engine", f"max(w{x}, w_c{x})", "angular speed")
    s.put(f"d_e{x}", "throttle", state.throttle, "ratio", "solved")
    curve = engine.torque_curve
    after = next((c for c, point in enumerate(curve) if point[0] >= speed * (1 - 1e-12)), len(curve) - 1)
    before = max(after - 1, 0)
    path = f"drive.branches[{b}].source.torque_curve"
    for name, point in (("1", before), ("2", after)):
        s.given(f"w{name}{x}", f"engine: speed of point {point + 1}", f"{path}[{point}][0]")
        s.given(f"T{name}{x}", f"engine: torque of point {point + 1}", f"{path}[{point}][1]")
    if speed > curve[-1][0] * (1 + 1e-12):
        text = "0"
    elif before == after or speed <= curve[0][0]:
        text = f"d_e{x}*T2{x}"
    else:
        text = f"d_e{x}*(T1{x} + (T2{x} - T1{x})*(w_e{x} - w1{x})/(w2{x} - w1{x}))"
    s.step(f"T{x}", "torque of one engine", text, "torque")


def drive_force(case: WorkingCase, state: Sources) -> None:
    """F_drive at the speed v."""
    sources(case, state)
    s, joined = case.sheet, []
    for b in range(len(case.design.drive.branches)):
        x, divided = case.suffix(b), float(state.torque[b]) < 0.0
        loss = f"/eta_b{b + 1}" if divided else f"*eta_b{b + 1}"
        joined.append(f"n_u*n{x}*T{x}*i_b{b + 1}{loss}")
    total = s.step("T_j", "torque of all sources where they join", " + ".join(joined), "torque")
    loss = "/eta_t" if total < 0.0 else "*eta_t"
    s.step("F_drive", "driving force at the wheels' rim", f"T_j*i_t{loss}/r", "force")


def _turning_in(case: WorkingCase, name: str, stages: tuple[Stage, ...], behind: str) -> Iterator[str]:
    """Inertia of what turns in each stage of a row, reduced to the wheels, as an expression.

    Args:
        case: with the ratios of all stages.
        name: of the row.
        stages: of the row.
        behind: what the row's ratio is multiplied by on the way to the wheels.
    """
    s, prefix = case.sheet, "drive" if name == "t" else f"drive.branches[{int(name[1:]) - 1}]"
    numbers = [f"{name}{k + 1}" for k in range(len(stages))]
    speeds = [f"j_{n}" if f"j_{n}" in s.known else f"i_{n}" for n in numbers]
    for k, stage in enumerate(stages):
        if stage.inertia:
            words = f"inertia of the {stage.noun}, about its input"
            s.given(f"J_{numbers[k]}", words, f"{prefix}.stages[{k}].inertia")
            yield f"J_{numbers[k]}*({'*'.join(speeds[k:])}{behind})**2"


def inertial_mass(case: WorkingCase) -> None:
    """m_eff with wheels and rotors reduced to the rim."""
    s, turning = case.sheet, []
    weight(case)
    radius(case)
    s.given("J_w", "inertia of all wheels", "vehicle.wheels_inertia")
    for b, branch in enumerate(case.design.drive.branches):
        x, key = case.suffix(b), "inertia" if isinstance(branch.source, Engine) else "rotor_inertia"
        s.given(f"J{x}", "inertia of one source", f"drive.branches[{b}].source.{key}")
        turning.append(f"n_u*n{x}*J{x}*G{x}**2")
        turning += [f"n_u*n{x}*{term}" for term in _turning_in(case, f"b{b + 1}", branch.stages, "*j_t")]
    turning += [f"n_u*{term}" for term in _turning_in(case, "t", case.design.drive.stages, "")]
    s.step("m_eff", "mass with what turns", f"m + (J_w + {' + '.join(turning)})/r**2", "mass")
