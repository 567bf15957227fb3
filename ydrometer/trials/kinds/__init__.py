"""The kinds of test runs: what each one reads, and what the model says of it."""

from ydrometer.trials.kinds.draws import CaseTemperature, LargestCurrent, MotorCurrent, SupplyCurrent, VoltageUnderLoad
from ydrometer.trials.kinds.forces import Coast, Push, Stop, Tow
from ydrometer.trials.kinds.times import DistanceTime, SpeedAt, SpeedTime, Spin, TopSpeed
from ydrometer.trials.trial import Trial

KINDS: dict[str, type[Trial]] = {
    kind.kind: kind
    for kind in (
        Spin,
        DistanceTime,
        SpeedTime,
        TopSpeed,
        SpeedAt,
        Push,
        Tow,
        Coast,
        Stop,
        SupplyCurrent,
        LargestCurrent,
        MotorCurrent,
        VoltageUnderLoad,
        CaseTemperature,
    )
}

__all__ = [
    "KINDS",
    "CaseTemperature",
    "Coast",
    "DistanceTime",
    "LargestCurrent",
    "MotorCurrent",
    "Push",
    "SpeedAt",
    "SpeedTime",
    "Spin",
    "Stop",
    "SupplyCurrent",
    "TopSpeed",
    "Tow",
    "VoltageUnderLoad",
]
