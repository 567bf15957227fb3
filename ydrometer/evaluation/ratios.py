"""Ratios in numbers that can be held: fractions reduced, both directions, and what is worth a remark."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from ydrometer.document.design import Design
from ydrometer.document.stages import Stage
from ydrometer.document.walk import own_stages, stages_with_paths, trunk_stages
from ydrometer.evaluation.driveline import gear_ratios, overall_ratios

LARGEST_TERM = 100_000
"""A reduced fraction with larger terms tells nobody anything."""
AGREES = 0.005
"""Relative difference up to which a ratio that somebody was told counts as the same, rounded."""


@dataclass(frozen=True, slots=True)
class RatioView:
    """The ratio of a stage, or of a whole branch with the trunk.

    Attributes:
        path: of the stage; of the branch, "drive.branches[0]", for an overall ratio.
        gear: of a box of several speeds, from 0. ratio: driver or source turns per driven or wheel turn.
        terms: the exact fraction of teeth, reduced; None where something has no teeth.
        remark: about teeth that meet again and again, or an idler; empty where there is none.
    """

    path: str
    gear: int
    ratio: float
    terms: tuple[int, int] | None
    remark: str


def ratio_views(design: Design) -> list[RatioView]:
    """Every stage in the order of power, then each branch overall, a gear each."""
    views = [_stage(path, stage) for path, stage in stages_with_paths(design)]
    for branch, gear, ratio in overall_ratios(design):
        stages = [stage for _, stage in (*own_stages(design, branch), *trunk_stages(design))]
        views.append(RatioView(f"drive.branches[{branch}]", gear, ratio, _terms(_product(stages)), ""))
    return views


def _stage(path: str, stage: Stage) -> RatioView:
    return RatioView(path, 0, stage.speed_ratio, _terms(stage.exact_ratio), stage.remark)


def _product(stages: list[Stage]) -> Fraction | None:
    whole = Fraction(1)
    for stage in stages:
        part = stage.exact_ratio
        if part is None:
            return None
        whole *= part
    return whole if stages else None


def _terms(fraction: Fraction | None) -> tuple[int, int] | None:
    if fraction is None or max(fraction.numerator, fraction.denominator) > LARGEST_TERM:
        return None
    return fraction.numerator, fraction.denominator


def question(design: Design, path: str, given: float) -> str:
    """What to ask when somebody was told a ratio for a stage; empty where there is no such stage.

    Args:
        design: any.
        path: of the stage.
        given: the ratio, above 0, either way round.
    """
    stage = dict(stages_with_paths(design)).get(path)
    if stage is None or stage.several_speeds:
        return ""
    own = stage.speed_ratio
    if _same(given, own):
        return f"That agrees: {own:.4g} driver turns for one driven turn."
    if _same(given, 1.0 / own):
        return (
            f"That is the other way round: {given:.4g} driven turns for one driver turn. Here it counts as {own:.4g}."
        )
    for _, gear, overall in overall_ratios(design):
        if _same(given, overall) or _same(given, 1.0 / overall):
            where = f" in gear {gear + 1}" if len(gear_ratios(design)) > 1 else ""
            return f"That is the reduction of the whole line{where}, not of this stage alone, which makes {own:.4g}."
    sentence = f"This stage makes {own:.4g} : 1, you were told {given:.4g}."
    if stage.form is not None and stage.form.toothed:
        driver = int(stage.members[0].measure)
        nearest = max(1, round(driver * given))
        return (
            f"{sentence} Is a tooth count wrong? With {driver} driver teeth, {nearest} driven teeth "
            f"would make {nearest / driver:.4g}."
        )
    return f"{sentence} Which of the two was measured?"


def _same(first: float, second: float) -> bool:
    return abs(first - second) <= AGREES * abs(second)
