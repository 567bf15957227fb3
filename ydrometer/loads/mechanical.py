"""Checks of what passes torque: stages as their kinds tell, boxes by their speed; and of the brakes."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import replace

import numpy as np

from ydrometer.loads.electrical import IN_THE_AIR, RADIANS, RUN
from ydrometer.loads.load_case import LoadCase
from ydrometer.loads.rows import UseRow, row, strained

KA_FREE = ("belt_jump", "v_belt_slip", "chain_teeth", "order_of_steps")
"""Checks whose demand no application factor multiplies."""


def stages(case: LoadCase) -> Iterator[UseRow]:
    """What each stage says of its parts."""
    for through in case.line.stages:
        for strain in through.stage.strains(case.passing(through)):
            assumed = [] if strain.check in KA_FREE else case.service
            yield strained(through.path, strain, case.moments.names, assumed)


def speed_limits(case: LoadCase) -> Iterator[UseRow]:
    """The fastest speed of a part of a stage in the run, and with the wheels in the air, against what it may turn."""
    for through in case.line.stages:
        for limit in through.stage.speed_limits():
            driven = limit.end == "driven"
            running = np.abs(through.speed_out if driven else through.speed_in)
            air = case.airborne[through.path]
            air = air / through.stage.speed_ratio if driven else air
            known = limit.of.known.get("w_ok")
            needs = [f"{through.path}.{key}" for key in limit.needs]
            run = [] if case.moments.run is None else [(RUN, float(running.max()))]
            for moment, speed in (*run, (IN_THE_AIR, air)):
                told = row(
                    limit.check,
                    through.path,
                    RADIANS,
                    speed,
                    None if known is None else float(known),
                    moment=moment,
                    assumed=limit.assumed,
                    needs=needs,
                )
                yield replace(told, member=limit.member or None)


def brakes(case: LoadCase) -> Iterator[UseRow]:
    """The distance in which it stops from top speed against the one in which it has to."""
    sight = case.design.vehicle.sight
    stopping = case.evaluation.value("stopping_distance", case.index)
    if sight is not None and stopping is None:
        yield UseRow(
            "brakes",
            "vehicle",
            None,
            None,
            None,
            sight,
            "m",
            None,
            "over",
            remarks=("the slope is steeper than the brakes hold",),
        )
        return
    known = stopping if stopping is not None and math.isfinite(stopping) else None
    yield row("brakes", "vehicle", "m", known, sight, needs=[] if sight else ["vehicle.sight"])
