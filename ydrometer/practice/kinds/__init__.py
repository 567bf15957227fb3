"""Every kind of exercise, by its idea, in the order in which they are taught."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from ydrometer.practice.draw import Draw
from ydrometer.practice.kinds import (
    bags,
    electrics,
    fits,
    measured,
    mended,
    pushes,
    ratios,
    senses,
    speeds,
    trains,
    trials,
)
from ydrometer.practice.posed import Posed

Pose = Callable[[Draw], Posed]


@dataclass(frozen=True, slots=True)
class ExerciseKind:
    """A kind of exercise: its name, the idea that it practises, and what poses one."""

    name: str
    idea: str
    pose: Pose


_TABLE: dict[str, dict[str, Pose]] = {
    "ratio": {
        "ratio": ratios.ratio,
        "turns": ratios.turns,
        "taller": ratios.taller,
        "other_way_round": ratios.other_way_round,
    },
    "driver and driven": {"mark_driver": ratios.mark_driver, "speed_or_pull": ratios.speed_or_pull},
    "turning sense": {"last_wheel": senses.last_wheel, "other_source": senses.other_source},
    "idlers": {"idler_changes": trains.idler_changes, "idler_or_compound": trains.idler_or_compound},
    "stages multiply": {
        "compound": trains.compound,
        "planetary_steps": trains.planetary_steps,
        "third_stage": trains.third_stage,
    },
    "from a bag": {"bag_pair": bags.bag_pair, "bag_two_pairs": bags.bag_two_pairs, "rare_wheel": bags.rare_wheel},
    "counted turns": {"counted_held": measured.counted_held, "counted_both": measured.counted_both},
    "running diameter": {"v_pulley": measured.v_pulley, "runs_smaller": measured.runs_smaller},
    "speed": {
        "road_speed": speeds.road_speed,
        "roll_per_turn": speeds.roll_per_turn,
        "wheel_counter": speeds.wheel_counter,
        "scale_speed": speeds.scale_speed,
        "swap_speed": speeds.swap_speed,
    },
    "torque and push": {"wheel_torque": pushes.wheel_torque, "rim_force": pushes.rim_force, "twice": pushes.twice},
    "start and grip": {"start_slope": pushes.start_slope, "spin_or_stall": pushes.spin_or_stall},
    "volts and cells": {
        "free_speed": electrics.free_speed,
        "series_parallel": electrics.series_parallel,
        "sag": electrics.sag,
    },
    "current": {
        "start_current": electrics.start_current,
        "which_controller": electrics.which_controller,
        "shove": electrics.shove,
    },
    "fits": {"centres": fits.centres, "on_holes": fits.on_holes, "belt_reaches": fits.belt_reaches},
    "weak place": {"stack_order": fits.stack_order, "slips_first": fits.slips_first},
    "which is better": {"more_than_scatter": trials.more_than_scatter, "how_many_runs": trials.how_many_runs},
    "find the mistake": {"find_mistake": mended.find_mistake},
}
IDEAS: tuple[str, ...] = tuple(_TABLE)
KINDS: dict[str, ExerciseKind] = {
    name: ExerciseKind(name, idea, pose) for idea, kinds in _TABLE.items() for name, pose in kinds.items()
}
