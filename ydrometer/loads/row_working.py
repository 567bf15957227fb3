"""The working of a row: how its demand and what its part stands come about, from numbers that are all shown.

What a stage says of itself is written down as it was reckoned (`base.reckoning`), at the moment that counts; before it
stands how the torque gets there from the sources.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

import numpy as np

from ydrometer.base.reckoning import Floats, Put, Reckoning
from ydrometer.base.tables.strengths import FUSE, MATERIALS
from ydrometer.document.sources import Engine, Motor
from ydrometer.document.stages.strain import WHOLE
from ydrometer.document.walk import branch_of
from ydrometer.loads import electrical, wires
from ydrometer.loads.balance import balance
from ydrometer.loads.check_words import CHECKS
from ydrometer.loads.day import Stretch, bus_of, longest_currents, squares
from ydrometer.loads.electrical import IN_THE_AIR
from ydrometer.loads.heat import RUNAWAY
from ydrometer.loads.load_case import MARGIN, LoadCase
from ydrometer.loads.moments import LOW
from ydrometer.loads.row_arriving import RowCase, arriving, at_moment, ratios
from ydrometer.loads.rows import DIMENSIONS, UseRow, largest
from ydrometer.working import measures, power
from ydrometer.working.sheet import Column, Sheet, Working


def row_working(load_case: LoadCase, row: UseRow) -> Working:
    """The working behind the use of a row; of its demand where nobody knows what its part stands.

    Args:
        load_case: the design.
        row: one of its rows.
    """
    near_the_end = load_case.low if (row.moment or "").endswith(LOW) else None
    evaluated = near_the_end or load_case
    sheet = Sheet(evaluated.evaluation.documents[evaluated.index].values)
    case = RowCase(evaluated.evaluation, evaluated.index, sheet, _branch(row.path), load_case, row)
    wants = stands = ""
    if row.demand is not None or row.capacity is not None:
        wants, stands = _of_stage(case) if row.strain is not None else WRITTEN[row.check](case)
    if row.use is not None:
        sheet.step("u", "share of what it stands", f"{wants}/{stands}", "use")
    value = row.demand if row.use is None else row.use
    dimension = DIMENSIONS[row.unit] if row.use is None else "use"
    check = CHECKS[row.check]
    return Working(
        row.check,
        dimension,
        value,
        "",
        check.formula,
        check.source,
        sheet.inputs,
        sheet.table,
        sheet.steps,
        None,
        [],
    )


def _branch(path: str) -> int:
    """The branch that a path is of; 0 of what is of none."""
    return branch_of(path) if path.startswith("drive.branches[") else 0


def _of_stage(case: RowCase) -> tuple[str, str]:
    """What a stage, or a shaft, has said of itself."""
    strain, at = case.row.strain, case.row.at
    assert strain is not None  # the caller has looked
    if at is not None:
        arriving(case, at)
    _copied(case, strain.of, at or 0)
    return strain.wants, strain.stands


def _copied(case: RowCase, reckoning: Reckoning, at: int) -> None:
    """Write a reckoning down at one moment."""
    for line in reckoning.lines:
        if not isinstance(line, Put):
            case.sheet.step(line.symbol, line.words, line.expression, line.dimension)
            continue
        value = np.asarray(line.value)
        number = float(value[at] if value.ndim else value)
        path = line.key if line.key.startswith(WHOLE) or not line.key else f"{case.row.path}.{line.key}"
        said = case.sheet.values.get(path)
        origin, note = (said.origin, said.note) if said else (line.origin, line.note)
        case.sheet.put(line.symbol, line.words, number, line.dimension, origin, path, note)


def _current(case: RowCase, key: str, capacity_words: str) -> tuple[str, str]:
    """The current of one motor at its moment against a rating."""
    assert case.row.at is not None  # the check has looked
    at_moment(case, case.row.at)
    x = case.suffix(case.branch)
    case.sheet.step("I_p", "the largest current, whichever way", f"max(I{x}, -I{x})", "current")
    return "I_p", _rating(case, capacity_words, key, "current")


def _rating(case: RowCase, words: str, path: str, dimension: str) -> str:
    """Put in what a part stands."""
    if case.row.capacity is not None:
        said = case.sheet.values.get(path)
        origin = said.origin if said else "assumed"
        case.sheet.put("C", words, case.row.capacity, dimension, origin, path, said.note if said else "")
    return "C"


def _motor_peak(case: RowCase) -> tuple[str, str]:
    return _current(case, f"{case.row.path}.peak_current", "what one motor stands for a moment")


def _controller_peak(case: RowCase) -> tuple[str, str]:
    controller = case.design.drive.branches[case.branch].controller
    peak = controller is not None and controller.peak_current is not None
    key = "peak_current" if peak else "continuous_current"
    return _current(case, f"{case.row.path}.controller.{key}", "what its controller carries")


def _supply_peak(case: RowCase) -> tuple[str, str]:
    assert case.row.at is not None  # the check has looked
    at_moment(case, case.row.at)
    case.sheet.step("I_p", "current of the supply, whichever way", "max(I_bus, -I_bus)", "current")
    return "I_p", _rating(case, "what it gives for a moment", "drive.supply.peak_current", "current")


def _supply_voltage(case: RowCase) -> tuple[str, str]:
    assert case.row.at is not None  # the check has looked
    at_moment(case, case.row.at)
    if case.row.demand is not None:
        case.sheet.given("V_off", "voltage at which electronics drop out", "drive.supply.cutoff_voltage")
    case.sheet.step("V_l", "lowest voltage of the bus", "V_b", "voltage")
    return "V_off", "V_l"


def _mean(case: RowCase, of: Callable[[Stretch], Floats], path: str) -> tuple[str, str]:
    """A root mean square over the day against a rating."""
    _mean_current(case, of)
    return "I_e", _rating(case, "what it carries for long", path, "current")


def _mean_current(case: RowCase, of: Callable[[Stretch], Floats]) -> None:
    """Put in the root mean square of a current over the day, I_e."""
    work, seconds = squares(case.load_case.heats, of)
    case.sheet.columns(
        Column("t", "time that counts, of each block of the day", "time", seconds.tolist()),
        Column(
            "I2_m",
            "mean square of the current, A²",
            "ratio",
            np.divide(work, seconds, out=np.zeros_like(work), where=seconds > 0.0).tolist(),
        ),
        Column("q", "their product", "ratio", work.tolist()),
    )
    case.sheet.step("I_e", "root mean square of the current", "sqrt(sum(q)/max(sum(t), 1e-12))", "current")


def _controller_continuous(case: RowCase) -> tuple[str, str]:
    of = partial(electrical.current_of, case.branch)
    return _mean(case, of, f"{case.row.path}.controller.continuous_current")


def _supply_continuous(case: RowCase) -> tuple[str, str]:
    return _mean(case, bus_of, "drive.supply.continuous_current")


def _fuse(case: RowCase) -> tuple[str, str]:
    s = case.sheet
    rating = s.given("I_r", "rating of the fuse", "drive.supply.fuse.rating")
    uses = [
        (current / (multiple * rating), current, time, multiple)
        for current, (time, multiple) in zip(longest_currents(case.load_case.heats), FUSE, strict=True)
    ]
    _, current, time, multiple = max(uses, key=lambda row: row[0])
    s.put("t_f", "time of the fuse's table", time, "time")
    s.put("k_f", "of its rating it is sure to carry for no longer than that", multiple, "ratio")
    s.put("I_f", "current above which the supply stays for longer", current, "current", "solved")
    s.step("C", "what it is sure to carry", "k_f*I_r", "current")
    return "I_f", "C"


def _source_speed(case: RowCase) -> tuple[str, str]:
    x = case.suffix(case.branch)
    if case.row.moment == IN_THE_AIR:
        measures.no_load_speed(case)
    else:
        at_moment(case, largest(np.abs(case.states.source_speed[:, case.branch])))
    engine = isinstance(case.design.drive.branches[case.branch].source, Engine) and case.row.moment != IN_THE_AIR
    case.sheet.step("w_m", "fastest speed", f"w_e{x}" if engine else f"w{x}", "angular speed")
    return "w_m", _rating(case, "how fast it may turn", f"{case.row.path}.max_speed", "angular speed")


def _speed(case: RowCase) -> tuple[str, str]:
    """Of a part of a stage, which its driver's or its driven shaft turns."""
    through = next(t for t in case.load_case.line.stages if t.path == case.row.path)
    limit = next(limit for limit in through.stage.speed_limits() if limit.check == case.row.check)
    driven = limit.end == "driven"
    if case.row.moment == IN_THE_AIR:
        measures.no_load_speed(case)
    else:
        at_moment(case, largest(np.abs(through.speed_out if driven else through.speed_in)))
    slower = "/".join([f"w{case.suffix(through.branch or 0)}", *ratios(case, "j", inside=driven)])
    case.sheet.step("w_m", "fastest speed", slower, "angular speed")
    _copied(case, limit.of, 0)
    return "w_m", "w_ok"


def _highest_voltage(case: RowCase) -> tuple[str, str]:
    if case.row.at is None:
        power.open_circuit(case)
    else:
        at_moment(case, case.row.at)
    case.sheet.step("V_h", "highest voltage of the bus", "V_oc" if case.row.at is None else "V_b", "voltage")
    supply = case.row.path == electrical.SUPPLY
    key = f"{case.row.path}.max_voltage" if supply else f"{case.row.path}.controller.max_voltage"
    return "V_h", _rating(case, "voltage that it stands", key, "voltage")


def _wired(case: RowCase) -> tuple[str, str]:
    demand, _ = _wire_current(case)
    said = next(wire for path, wire in wires.wires(case.load_case) if path == case.row.path)
    if said.rating is not None:
        return demand, _rating(case, "what it carries for long", f"{case.row.path}.wire.rating", "current")
    _copied(case, wires.carried(said), 0)
    return demand, "I_w"


def _connected(case: RowCase) -> tuple[str, str]:
    demand, path = _wire_current(case)
    return demand, _rating(case, "what its connector carries for long", f"{path}.wire.connector_rating", "current")


def _wire_current(case: RowCase) -> tuple[str, str]:
    """The root mean square of a wire's current, and the path that the wire is said at."""
    path = case.row.path
    _mean_current(case, bus_of if path == electrical.SUPPLY else partial(electrical.current_of, case.branch))
    return "I_e", path


def _heat(case: RowCase, node: int) -> None:
    """The hottest moment of a node from the heat that came and went: T_r above the air."""
    s, warmth = case.sheet, case.load_case.warmth.get(case.branch)
    ambient = case.sheet.values.get("conditions.ambient")
    s.put(
        "T_a",
        "temperature of the air",
        case.design.conditions.ambient,
        "temperature",
        ambient.origin if ambient else "default",
        "conditions.ambient",
    )
    if warmth is None:
        return
    name = "winding" if node == 0 else "case"
    hottest = warmth.day.hottest_winding if node == 0 else warmth.day.hottest_case
    if hottest >= RUNAWAY:
        s.put("T_h", f"hottest {name}: it runs away, and is told as this", hottest, "temperature", "solved")
    else:
        ends = np.cumsum([stretch.count * stretch.seconds for stretch in case.load_case.heats.stretches])
        heat_balance = balance(warmth.one_heat, case.load_case.heats.count, ends, node)
        s.put("T_0", f"{name} at the start of the last heat", heat_balance.start, "temperature", "solved")
        s.put("C_n", f"heat capacity of the {name}", heat_balance.capacity, "heat capacity", "part")
        s.columns(
            Column("t", "time in each block of the day", "time", heat_balance.seconds.tolist()),
            Column("Q_in", "heat that comes", "energy", heat_balance.taken.tolist()),
            Column("Q_out", "heat that leaves", "energy", heat_balance.given.tolist()),
        )
        s.step("T_h", f"hottest {name}", "T_0 + (sum(Q_in) - sum(Q_out))/C_n", "temperature")
    s.step("T_r", "above the air", "T_h - T_a", "temperature rise")


def _winding(case: RowCase) -> tuple[str, str]:
    _heat(case, 0)
    source = case.design.drive.branches[case.branch].source
    assert isinstance(source, Motor)
    path = f"{case.row.path}.winding_limit"
    said = case.sheet.values.get(path)
    case.sheet.put(
        "T_l",
        "what its winding stands",
        case.load_case.limit(source),
        "temperature",
        said.origin if said else "assumed",
        path,
    )
    case.sheet.step("T_ok", "above the air", "T_l - T_a", "temperature rise")
    return "T_r", "T_ok"


def _mount(case: RowCase) -> tuple[str, str]:
    _heat(case, -1)
    source = case.design.drive.branches[case.branch].source
    assert isinstance(source, Motor)
    assert source.mount_material is not None
    softens = MATERIALS[source.mount_material].softens or 0.0
    case.sheet.put("T_s", "where its mount gets soft", softens, "temperature", "assumed", note=source.mount_material)
    case.sheet.put("T_m", "margin", MARGIN, "temperature rise")
    case.sheet.step("T_ok", "above the air", "T_s - T_m - T_a", "temperature rise")
    return "T_r", "T_ok"


def _brakes(case: RowCase) -> tuple[str, str]:
    if case.row.demand is not None:
        measures.stopping_distance(case)
    if case.row.capacity is not None:
        case.sheet.given("x_s", "distance in which it has to stop", "vehicle.sight")
    return "x_stop", "x_s"


WRITTEN: dict[str, Callable[[RowCase], tuple[str, str]]] = {
    "motor_peak_current": _motor_peak,
    "winding_temperature": _winding,
    "mount_softening": _mount,
    "source_speed": _source_speed,
    "controller_peak": _controller_peak,
    "controller_continuous": _controller_continuous,
    "supply_peak": _supply_peak,
    "supply_continuous": _supply_continuous,
    "supply_voltage": _supply_voltage,
    "fuse": _fuse,
    "box_speed": _speed,
    "chain_speed": _speed,
    "bus_voltage_high": _highest_voltage,
    "wire": _wired,
    "connector": _connected,
    "brakes": _brakes,
}
"""What writes the working of a check that no stage tells of: the symbols of demand and capacity."""
