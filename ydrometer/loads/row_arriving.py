"""How the torque gets from the sources to the part of a row: what the stages before pass on, what of it they keep."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import partial

import numpy as np

from ydrometer.document.sources import Engine, Motor, motor_line
from ydrometer.document.stages import Stage
from ydrometer.document.walk import own_stages, trunk_stages
from ydrometer.loads.load_case import LoadCase
from ydrometer.loads.moments import REVERSAL
from ydrometer.loads.rows import UseRow
from ydrometer.loads.words import SHAFTS_OWN
from ydrometer.motion.states import States
from ydrometer.motion.trace import Sources
from ydrometer.working import measures, power


@dataclass(frozen=True, slots=True)
class RowCase(measures.MeasureCase):
    """The row whose working is written, of a design worked out as far as it is asked."""

    load_case: LoadCase
    row: UseRow

    @property
    def states(self) -> States:
        """Its moments, and those with the battery near its end."""
        return self.load_case.every.states


def at_moment(case: RowCase, at: int) -> None:
    """Sources and supply at a moment."""
    states, s = case.states, case.sheet
    s.put(
        "v",
        f"speed of the wheels' rims, {case.load_case.every.names[at]}",
        float(states.speed[at]),
        "speed",
        "solved",
    )
    gear = int(states.gear[at])
    power.sources(case, _sources(case, at, gear if gear >= 0 else -1 - gear))


def _sources(case: RowCase, at: int, gear: int) -> Sources:
    """A moment as workings take it: what duty or throttle gives the currents and torques that were found."""
    states, design = case.states, case.design
    backwards = case.load_case.every.names[at] == REVERSAL
    applied, throttle = [], [0.0]
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
        gear,
        (min if backwards else max)(applied, default=0.0),
        float(states.bus_voltage[at]),
        float(states.bus_current[at]),
        max(throttle),
        states.source_speed[at],
        states.torque[at],
        states.current[at],
        states.behind[at],
        backwards,
    )


def arriving(case: RowCase, at: int) -> None:
    """The torque that comes to a stage and leaves it, and its speed: T_d, T_o, w_d.

    What speeds rotors up is taken off by ratios of speed alone.
    """
    through = next((t for t in case.load_case.line.stages if t.path == case.row.path), None)
    if through is None or case.row.check in SHAFTS_OWN:
        return
    at_moment(case, at)
    rotors = _rotors(case, at)
    s, passed = case.sheet, float(case.states.passed[at])
    if passed < 1.0:
        s.put("q_p", "share of it that the ground takes, the rest makes wheels slide", passed, "ratio", "solved")
    for symbol, words, torque, inside in (
        ("d", "the driver", through.torque_in, False),
        ("o", "the output", through.torque_out, True),
    ):
        sent, kept = _way(case, inside=inside)
        sent = f"q_p*({sent})" if "q_p" in s.known else sent
        s.step(f"S_{symbol}", f"torque of the sources as far as {words}, with losses", sent, "torque")
        if rotors and kept:
            s.step(f"R_{symbol}", "what of it speeds up what turns before", kept, "torque")
        expression = f"S_{symbol} - R_{symbol}" if rotors and kept else f"S_{symbol}"
        negative = float(torque[at]) < 0.0
        expression = f"-({expression})" if negative else expression
        s.step(f"T_{symbol}", f"torque on {words}, whichever way", expression, "torque")
    slower = "/".join([f"w{case.suffix(through.branch or 0)}", *ratios(case, "j", inside=False)])
    s.step("w_d", "speed of the driver", slower, "angular speed")


def _rotors(case: RowCase, at: int) -> bool:
    """Put in how rotors, and what turns in the stages, are sped up; whether they are."""
    a, s = float(case.states.acceleration[at]), case.sheet
    if a == 0.0:
        return False
    before = set(s.known)
    s.put("a", "acceleration", a, "acceleration", "solved")
    for b, branch in enumerate(case.design.drive.branches):
        x = case.suffix(b)
        if isinstance(branch.source, Motor) and branch.source.rotor_inertia > 0.0:
            s.given(f"J{x}", "inertia of one rotor", f"drive.branches[{b}].source.rotor_inertia")
            s.step(f"R{x}_0", "torque that speeds one rotor up", f"J{x}*a*G{x}/r", "torque")
        listed = list(own_stages(case.design, b))
        _speed_up(case, f"b{b + 1}", listed, partial(_behind_a_source, case, x))
    trunk = list(trunk_stages(case.design))
    _speed_up(case, "t", trunk, partial(_before_the_wheels, case))
    return any(name.startswith("R") for name in set(s.known) - before)


def _behind_a_source(case: RowCase, suffix: str, names: Sequence[str], k: int) -> str:
    """How fast the input of the k-th stage of a branch gains speed."""
    return "/".join([f"a*G{suffix}/r", *_speeds(case, names[:k])])


def _before_the_wheels(case: RowCase, names: Sequence[str], k: int) -> str:
    """The same of the trunk."""
    return f"a*{'*'.join(_speeds(case, names[k:]))}/r"


def _speed_up(
    case: RowCase, name: str, stages: Sequence[tuple[str, Stage]], growth: Callable[[list[str], int], str]
) -> None:
    """Put in what speeds up what turns in the stages of a row; `growth` says how fast the input of the k-th gains."""
    names = [f"{name}{k + 1}" for k in range(len(stages))]
    for k, (path, stage) in enumerate(stages):
        if stage.inertia:
            n = names[k]
            case.sheet.given(f"J_{n}", f"inertia of the {stage.noun}, about its input", f"{path}.inertia")
            words = f"torque that speeds up what turns in the {stage.noun}"
            case.sheet.step(f"R_{n}", words, f"J_{n}*{growth(names, k)}", "torque")


def _speeds(case: RowCase, names: Sequence[str]) -> list[str]:
    """Symbols of the ratios of speed of stages."""
    return [f"j_{n}" if f"j_{n}" in case.sheet.known else f"i_{n}" for n in names]


def _kept(case: RowCase, rotor: str, names: Sequence[str]) -> list[str]:
    """What a rotor and the stages of a row keep of the torque, as seen behind the last of them; as expressions."""
    known = case.sheet.known
    factors = ["*".join([rotor, *_speeds(case, names)])] if rotor in known else []
    return factors + ["*".join([f"R_{n}", *_speeds(case, names[k:])]) for k, n in enumerate(names) if f"R_{n}" in known]


def _names(case: RowCase, path: str) -> list[tuple[str, str]]:
    """Names and paths of the stages of a row of stages, up to and with one; all of them where it is not among them."""
    rows = [(f"b{b + 1}", own_stages(case.design, b)) for b in range(len(case.design.drive.branches))]
    for name, stages in [*rows, ("t", trunk_stages(case.design))]:
        listed = [(f"{name}{k + 1}", where) for k, (where, _) in enumerate(stages)]
        at = next((k for k, (_, where) in enumerate(listed) if where == path), None)
        if at is not None:
            return listed[: at + 1]
    return []


def ratios(case: RowCase, kind: str, *, inside: bool) -> list[str]:
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
    known = case.sheet.known
    if not case.row.path.startswith("drive.stages"):
        x = case.suffix(case.branch)
        sign = "*" if known[f"T{x}"] >= 0.0 else "/"
        sent = f"T{x}" + "".join(f"*i_{n}{sign}eta_{n}" for n in names)
        return sent, " + ".join(_kept(case, f"R{x}_0", names))
    joined, rotors, total = [], [], 0.0
    for b, branch in enumerate(case.design.drive.branches):
        x, name = case.suffix(b), f"b{b + 1}"
        loss = known[f"eta_{name}"] if known[f"T{x}"] >= 0.0 else 1.0 / known[f"eta_{name}"]
        total += known[f"n{x}"] * known[f"T{x}"] * known[f"i_{name}"] * loss
        joined.append(f"n{x}*T{x}*i_{name}{'*' if known[f'T{x}'] >= 0.0 else '/'}eta_{name}")
        own = _kept(case, f"R{x}_0", [f"{name}{k + 1}" for k in range(len(branch.stages))])
        rotors += [f"n{x}*{kept}" for kept in own]
    sign = "*" if total >= 0.0 else "/"
    sent = f"({' + '.join(joined)})" + "".join(f"*i_{n}{sign}eta_{n}" for n in names)
    through = ["*".join([f"({' + '.join(rotors)})", *_speeds(case, names)])] if rotors else []
    return sent, " + ".join(through + _kept(case, "", names))
