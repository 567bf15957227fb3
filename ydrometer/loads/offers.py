"""Usual values for what somebody has not looked up, each with what it is usual of; never put in by themselves."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ydrometer.base.tables.strengths import BELT_PROFILES, belt_force_per_width, chain_breaks
from ydrometer.document.design import Design
from ydrometer.document.sources import Motor
from ydrometer.document.stages.belt import Belt
from ydrometer.document.stages.chain import Chain
from ydrometer.document.walk import stages_with_paths
from ydrometer.loads.rows import Row

INSULATION = {"B": "130 degC", "F": "155 degC", "H": "180 degC"}
"""What windings stand, by the class of their insulation (IEC 60085, Electrical insulation: Thermal evaluation and
designation)."""


@dataclass(frozen=True, slots=True)
class Offer:
    """A usual value: the path that it would be put at, as typed, and what it is usual of."""

    path: str
    value: str
    of: str


def offers(design: Design, row: Row) -> list[Offer]:
    """Usual values of what a row wants or has assumed; none where the document says it."""
    return list(_of_windings(design, row)) + list(_of_stages(design, row))


def _of_windings(design: Design, row: Row) -> Iterator[Offer]:
    if row.check != "winding_temperature":
        return
    for b, branch in enumerate(design.drive.branches):
        path = f"drive.branches[{b}].source"
        if row.path == path and isinstance(branch.source, Motor) and branch.source.winding_limit is None:
            for name, limit in INSULATION.items():
                yield Offer(f"{path}.winding_limit", limit, f"insulation of class {name}")


def _of_stages(design: Design, row: Row) -> Iterator[Offer]:
    stage = dict(stages_with_paths(design)).get(row.path)
    if isinstance(stage, Belt) and row.check == "belt_force" and stage.pitch and not stage.allowed_force_per_width:
        for profile in (stage.profile,) if stage.profile else BELT_PROFILES:
            allowed = belt_force_per_width(stage.pitch, profile)
            if allowed is not None:
                yield Offer(
                    f"{row.path}.allowed_force_per_width", f"{1e-3 * allowed:.3g} N/mm",
                    f"{profile} belts of {1e3 * stage.pitch:.4g} mm pitch",
                )  # fmt: skip
    if isinstance(stage, Chain) and row.check == "chain_force" and stage.pitch and not stage.breaking_load:
        breaks = chain_breaks(stage.pitch)
        if breaks is not None:
            yield Offer(
                f"{row.path}.breaking_load", f"{1e-3 * breaks:.3g} kN", f"chains of {1e3 * stage.pitch:.4g} mm pitch"
            )
