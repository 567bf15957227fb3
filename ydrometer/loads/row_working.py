"""The working of a row: how its demand and what its part stands come about, from numbers that are all shown.

What a stage says of itself is written down as it was reckoned (`base.reckoning`), at the moment that counts; before it
stands how the torque gets there from the sources.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import partial

import numpy as np

from ydrometer.base.reckoning import Floats, Put, Reckoning
from ydrometer.base.tables.strengths import FUSE, MATERIALS
from ydrometer.document.sources import Engine, Motor, motor_line
from ydrometer.document.walk import branch_of, own_stages, trunk_stages
from ydrometer.loads import electrical
from ydrometer.loads.asked import MARGIN, Asked
from ydrometer.loads.balance import balance
from ydrometer.loads.day import Stretch, longest_currents, squares
from ydrometer.loads.electrical import IN_THE_AIR
from ydrometer.loads.heat import RUNAWAY
from ydrometer.loads.rows import DIMENSIONS, Row, largest
from ydrometer.loads.words import CHECKS
from ydrometer.motion.states import States
from ydrometer.motion.trace import Sources
from ydrometer.working import measures, power
from ydrometer.working.sheet import Column, Sheet, Working

WHOLE = ("fit.", "loads.", "vehicle.", "drive.")
"""How keys begin that are of the whole document."""


@dataclass(frozen=True, slots=True)
class RowCase(measures.Asked):
    """The row whose working is written, of a design worked out as far as it is asked."""

    asked: Asked
    row: Row

    @property
    def states(self) -> States:
        """Its moments."""
        return self.asked.moments.states


def row_working(asked: Asked, row: Row) -> Working:
    """The working behind the use of a row; of its demand where nobody knows what its part stands.

    Args:
        asked: the design.
        row: one of its rows.
    """
    sheet = Sheet(asked.evaluation.documents[asked.index].values)
    case = RowCase(asked.evaluation, asked.index, sheet, _branch(row.path), asked, row)
    wants = stands = ""
    if row.demand is not None or row.capacity is not None:
        wants, stands = _of_stage(case) if row.strain is not None else WRITTEN[row.check](case)
    if row.use is not None:
        sheet.step("u", "share of what it stands", f"{wants}/{stands}", "use")
    value = row.demand if row.use is None else row.use
    dimension = DIMENSIONS[row.unit] if row.use is None else "use"
    check = CHECKS[row.check]
    return Working(
        row.check, dimension, value, "", check.formula, check.source,
        sheet.inputs, sheet.table, sheet.steps, None, [],
    )  # fmt: skip


def _branch(path: str) -> int:
    """The branch that a path is of; 0 of what is of none."""
    return branch_of(path) if path.startswith("drive.branches[") else 0


def _of_stage(case: RowCase) -> tuple[str, str]:
    """What a stage, or a shaft, has said of itself."""
    strain, at = case.row.strain, case.row.at
    assert strain is not None  # the caller has looked
    if at is not None:
        _arriving(case, at)
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


def _at(case: RowCase, at: int) -> None:
    """Sources and supply at a moment."""
    states, s = case.states, case.sheet
    s.put("v", f"speed of the wheels' rims, {case.asked.moments.names[at]}", float(states.speed[at]), "speed", "solved")
    gear = int(states.gear[at])
    power.sources(case, _sources(case, at, gear if gear >= 0 else -1 - gear))


def _sources(case: RowCase, at: int, gear: int) -> Sources:
    """A moment as workings take it: what duty or throttle gives the currents and torques that were found."""
    states, design = case.states, case.design
    applied, throttle = [0.0], [0.0]
    for b, branch in enumerate(design.drive.branches):
        if isinstance(branch.source, Engine):
            curve = np.array(branch.source.torque_curve)
            full = float(np.interp(states.source_speed[at, b], curve[:, 0], curve[:, 1]))
            throttle.append(float(states.torque[at, b]) / full if full > 0.0 else 0.0)
            continue
        line = motor_line(branch.source)
        resistance = line.resistance + (branch.controller.resistance if branch.controller else 0.0)
        applied.append(float(states.current[at, b] * resistance + line.ke * states.source_speed[at, b]))
    return Sources(
        gear, max(applied), float(states.bus_voltage[at]), float(states.bus_current[at]), max(throttle),
        states.source_speed[at], states.torque[at], states.current[at], states.behind[at],
    )  # fmt: skip


def _arriving(case: RowCase, at: int) -> None:
    """The torque that comes to a stage and leaves it, and its speed: T_d, T_o, w_d.

    What speeds rotors up is taken off by ratios of speed alone.
    """
    through = next((t for t in case.asked.line.stages if t.path == case.row.path), None)
    if through is None or case.row.check == "shaft_stress":
        return
    _at(case, at)
    rotors = _rotors(case, at)
    s = case.sheet
    for symbol, words, torque, inside in (
        ("d", "the driver", through.torque_in, False), ("o", "the output", through.torque_out, True),
    ):  # fmt: skip
        sent, kept = _way(case, inside=inside)
        s.step(f"S_{symbol}", f"torque of the sources as far as {words}, with losses", sent, "torque")
        if rotors and kept:
            s.step(f"R_{symbol}", "what of it speeds their rotors up", kept, "torque")
        expression = f"S_{symbol} - R_{symbol}" if rotors and kept else f"S_{symbol}"
        negative = float(torque[at]) < 0.0
        expression = f"-({expression})" if negative else expression
        s.step(f"T_{symbol}", f"torque on {words}, whichever way", expression, "torque")
    slower = "/".join([f"w{case.suffix(through.branch or 0)}", *_ratios(case, "j", inside=False)])
    s.step("w_d", "speed of the driver", slower, "angular speed")


def _rotors(case: RowCase, at: int) -> bool:
    """Put in how rotors are sped up; whether they are."""
    a, s = float(case.states.acceleration[at]), case.sheet
    found = False
    for b, branch in enumerate(case.design.drive.branches):
        if isinstance(branch.source, Motor) and branch.source.rotor_inertia > 0.0 and a != 0.0:
            x = case.suffix(b)
            s.put("a", "acceleration", a, "acceleration", "solved")
            s.given(f"J{x}", "inertia of one rotor", f"drive.branches[{b}].source.rotor_inertia")
            s.step(f"R{x}_0", "torque that speeds one rotor up", f"J{x}*a*G{x}/r", "torque")
            found = True
    return found


def _names(case: RowCase, path: str) -> list[tuple[str, str]]:
    """Names and paths of the stages of a row of stages, up to and with one; all of them where it is not among them."""
    rows = [(f"b{b + 1}", own_stages(case.design, b)) for b in range(len(case.design.drive.branches))]
    for name, stages in [*rows, ("t", trunk_stages(case.design))]:
        listed = [(f"{name}{k + 1}", where) for k, (where, _) in enumerate(stages)]
        at = next((k for k, (_, where) in enumerate(listed) if where == path), None)
        if at is not None:
            return listed[: at + 1]
    return []


def _ratios(case: RowCase, kind: str, *, inside: bool) -> list[str]:
    """Symbols of the ratios of torque (i) or speed (j) that lie between the sources and the row's stage."""
    names = [name for name, _ in _names(case, case.row.path)]
    names = names if inside else names[:-1]
    trunk = case.row.path.startswith("drive.stages")
    joined = [f"{kind}_b1"] if trunk and kind == "j" else []
    known = case.sheet.known
    return joined + [f"{kind}_{n}" if f"{kind}_{n}" in known else f"i_{n}" for n in names]


def _way(case: RowCase, *, inside: bool) -> tuple[str, str]:
    """What sources send as far as the row's stage, and what of it rotors keep, as expressions."""
    names = [name for name, _ in _names(case, case.row.path)]
    names = names if inside else names[:-1]
    torques, known = case.sheet.known, case.sheet.known
    if not case.row.path.startswith("drive.stages"):
        x = case.suffix(case.branch)
        sign = "*" if torques[f"T{x}"] >= 0.0 else "/"
        sent = f"T{x}" + "".join(f"*i_{n}{sign}eta_{n}" for n in names)
        kept = f"R{x}_0" + "".join(f"*{ratio}" for ratio in _ratios(case, "j", inside=inside))
        return sent, kept if f"R{x}_0" in known else ""
    joined, rotors, total = [], [], 0.0
    for b in range(len(case.design.drive.branches)):
        x, name = case.suffix(b), f"b{b + 1}"
        loss = known[f"eta_{name}"] if torques[f"T{x}"] >= 0.0 else 1.0 / known[f"eta_{name}"]
        total += known[f"n{x}"] * torques[f"T{x}"] * known[f"i_{name}"] * loss
        joined.append(f"n{x}*T{x}*i_{name}{'*' if torques[f'T{x}'] >= 0.0 else '/'}eta_{name}")
        if f"R{x}_0" in known:
            rotors.append(f"n{x}*R{x}_0*j_{name}")
    sign = "*" if total >= 0.0 else "/"
    sent = f"({' + '.join(joined)})" + "".join(f"*i_{n}{sign}eta_{n}" for n in names)
    own = [ratio for ratio in _ratios(case, "j", inside=inside) if ratio != "j_b1"]
    return sent, "*".join([f"({' + '.join(rotors)})", *own]) if rotors else ""


def _current(case: RowCase, key: str, capacity_words: str) -> tuple[str, str]:
    """The current of one motor at its moment against a rating."""
    assert case.row.at is not None  # the check has looked
    _at(case, case.row.at)
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
    _at(case, case.row.at)
    case.sheet.step("I_p", "current of the supply", "I_bus", "current")
    return "I_p", _rating(case, "what it gives for a moment", "drive.supply.peak_current", "current")


def _supply_voltage(case: RowCase) -> tuple[str, str]:
    assert case.row.at is not None  # the check has looked
    _at(case, case.row.at)
    if case.row.demand is not None:
        case.sheet.given("V_off", "voltage at which electronics drop out", "drive.supply.cutoff_voltage")
    case.sheet.step("V_l", "lowest voltage of the bus", "V_b", "voltage")
    return "V_off", "V_l"


def _mean(case: RowCase, of: Callable[[Stretch], Floats], path: str) -> tuple[str, str]:
    """A root mean square over the day against a rating."""
    work, seconds = squares(case.asked.heats, of)
    case.sheet.columns(
        Column("t", "time that counts, of each block of the day", "time", seconds.tolist()),
        Column("I2_m", "mean square of the current, A²", "ratio",
               np.divide(work, seconds, out=np.zeros_like(work), where=seconds > 0.0).tolist()),
        Column("q", "their product", "ratio", work.tolist()),
    )  # fmt: skip
    case.sheet.step("I_e", "root mean square of the current", "sqrt(sum(q)/max(sum(t), 1e-12))", "current")
    return "I_e", _rating(case, "what it carries for long", path, "current")


def _controller_continuous(case: RowCase) -> tuple[str, str]:
    of = partial(electrical.current_of, case.branch)
    return _mean(case, of, f"{case.row.path}.controller.continuous_current")


def _supply_continuous(case: RowCase) -> tuple[str, str]:
    return _mean(case, lambda stretch: stretch.bus, "drive.supply.continuous_current")


def _fuse(case: RowCase) -> tuple[str, str]:
    s = case.sheet
    rating = s.given("I_r", "rating of the fuse", "drive.supply.fuse.rating")
    found = [(current / (multiple * rating), current, time, multiple)
             for current, (time, multiple) in zip(longest_currents(case.asked.heats), FUSE, strict=True)]  # fmt: skip
    _, current, time, multiple = max(found, key=lambda row: row[0])
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
        _at(case, largest(np.abs(case.states.source_speed[:, case.branch])))
    engine = isinstance(case.design.drive.branches[case.branch].source, Engine) and case.row.moment != IN_THE_AIR
    case.sheet.step("w_m", "fastest speed", f"w_e{x}" if engine else f"w{x}", "angular speed")
    return "w_m", _rating(case, "how fast it may turn", f"{case.row.path}.max_speed", "angular speed")


def _box_speed(case: RowCase) -> tuple[str, str]:
    through = next(t for t in case.asked.line.stages if t.path == case.row.path)
    if case.row.moment == IN_THE_AIR:
        measures.no_load_speed(case)
    else:
        _at(case, largest(np.abs(through.speed_in)))
    slower = "/".join([f"w{case.suffix(through.branch or 0)}", *_ratios(case, "j", inside=False)])
    case.sheet.step("w_m", "fastest speed of its input", slower, "angular speed")
    return "w_m", _rating(case, "how fast it may be turned", f"{case.row.path}.max_speed", "angular speed")


def _heat(case: RowCase, node: int) -> None:
    """The hottest moment of a node from the heat that came and went: T_r above the air."""
    s, warmth = case.sheet, case.asked.warmth.get(case.branch)
    ambient = case.sheet.values.get("conditions.ambient")
    s.put("T_a", "temperature of the air", case.design.conditions.ambient, "temperature",
          ambient.origin if ambient else "default", "conditions.ambient")  # fmt: skip
    if warmth is None:
        return
    name = "winding" if node == 0 else "case"
    hottest = warmth.day.hottest_winding if node == 0 else warmth.day.hottest_case
    if hottest >= RUNAWAY:
        s.put("T_h", f"hottest {name}: it runs away, and is told as this", hottest, "temperature", "solved")
    else:
        ends = np.cumsum([stretch.count * stretch.seconds for stretch in case.asked.heats.stretches])
        found = balance(warmth.one, case.asked.heats.count, ends, node)
        s.put("T_0", f"{name} at the start of the last heat", found.start, "temperature", "solved")
        s.put("C_n", f"heat capacity of the {name}", found.capacity, "heat capacity", "part")
        s.columns(
            Column("t", "time in each block of the day", "time", found.seconds.tolist()),
            Column("Q_in", "heat that comes", "energy", found.taken.tolist()),
            Column("Q_out", "heat that leaves", "energy", found.given.tolist()),
        )
        s.step("T_h", f"hottest {name}", "T_0 + (sum(Q_in) - sum(Q_out))/C_n", "temperature")
    s.step("T_r", "above the air", "T_h - T_a", "temperature rise")


def _winding(case: RowCase) -> tuple[str, str]:
    _heat(case, 0)
    source = case.design.drive.branches[case.branch].source
    assert isinstance(source, Motor)
    path = f"{case.row.path}.winding_limit"
    said = case.sheet.values.get(path)
    case.sheet.put("T_l", "what its winding stands", case.asked.limit(source), "temperature",
                   said.origin if said else "assumed", path)  # fmt: skip
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
    "motor_peak_current": _motor_peak, "winding_temperature": _winding, "mount_softening": _mount,
    "source_speed": _source_speed, "controller_peak": _controller_peak,
    "controller_continuous": _controller_continuous, "supply_peak": _supply_peak,
    "supply_continuous": _supply_continuous, "supply_voltage": _supply_voltage, "fuse": _fuse,
    "box_speed": _box_speed, "brakes": _brakes,
}  # fmt: skip
"""What writes the working of a check that no stage tells of: the symbols of demand and capacity."""
