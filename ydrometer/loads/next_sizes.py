"""Helps by size: the next shaft, wire, screw, key, axle or plate that there is."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import replace
from functools import partial
from typing import Any

from ydrometer.base.tables.screws import SCREWS
from ydrometer.document.design import Design
from ydrometer.document.mounting import Mounting, ShaftMount
from ydrometer.document.sources import Motor
from ydrometer.document.stages.hubs import MOST_SCREWS, Hub
from ydrometer.document.vehicle import Axle
from ydrometer.document.walk import branch_of, stage_at
from ydrometer.document.wire import Wire
from ydrometer.loads.change import Change, put_branch, with_stage
from ydrometer.loads.on_shafts import own_shaft, place_in_fit
from ydrometer.loads.rows import UseRow

DIAMETERS = (3.0, 4.0, 5.0, 6.0, 8.0, 10.0, 12.0, 15.0, 17.0, 20.0, 25.0, 30.0, 35.0, 40.0)
"""mm of usual shafts and axles."""
AREAS = (0.5, 0.75, 1.0, 1.5, 2.5, 4.0, 6.0, 10.0, 16.0, 25.0, 35.0, 50.0)
"""mm² of usual wires (IEC 60228)."""
STEP = 1.0
"""mm by which keys get longer and plates thicker."""
FARTHEST = 12
"""Sizes that are tried, at most."""


def next_sizes(design: Design, row: UseRow) -> Iterator[Change]:
    """Larger sizes of what a row is about, the next one first; nothing of a row that no size relieves.

    Args:
        design: as it is.
        row: near its limit or over it.
    """
    sizes = _SIZES.get(row.check)
    if sizes is not None:
        yield from sizes(design, row)


def _above(sizes: Sequence[float], now: float) -> list[float]:
    """Of usual sizes, mm, those above one in m."""
    return [size for size in sizes if size > 1e3 * now * (1.0 + 1e-9)][:FARTHEST]


def _shaft(design: Design, row: UseRow) -> Iterator[Change]:
    """A thicker shaft; the source's own is as it is."""
    fit, place = design.fit or Mounting(), place_in_fit(design, row.path)
    said = fit.of(row.path)
    if said is None or said.diameter is None or own_shaft(design, row.path) is not None:
        return
    for size in _above(DIAMETERS, said.diameter):
        apply = partial(_with_shaft, place, replace(said, diameter=1e-3 * size))
        yield Change(f"{size:g} mm shaft", apply, {f"fit.shafts[{place}].diameter": f"{size:g} mm"}, moves=False)


def _with_shaft(place: int, shaft: ShaftMount, design: Design) -> Design:
    fit = design.fit or Mounting()
    return replace(design, fit=replace(fit, shafts=(*fit.shafts[:place], shaft, *fit.shafts[place + 1 :])))


def _axle(design: Design, row: UseRow) -> Iterator[Change]:
    axle = design.vehicle.axle
    for size in _above(DIAMETERS, axle.diameter) if axle else ():
        apply = partial(_with_axle, replace(axle, diameter=1e-3 * size) if axle else None)
        yield Change(f"{size:g} mm axle", apply, {"vehicle.axle.diameter": f"{size:g} mm"}, moves=False)


def _with_axle(axle: Axle | None, design: Design) -> Design:
    return replace(design, vehicle=replace(design.vehicle, axle=axle))


def _wire(design: Design, row: UseRow) -> Iterator[Change]:
    supply, b = design.drive.supply, None if row.path == "drive.supply" else branch_of(row.path)
    wire = (supply.wire if supply else None) if b is None else design.drive.branches[b].wire
    if wire is None or wire.rating is not None:
        return
    for size in [area for area in AREAS if area > 1e6 * wire.area * (1.0 + 1e-9)]:
        apply = partial(_with_wire, b, replace(wire, area=1e-6 * size))
        yield Change(f"{size:g} mm² wire", apply, {f"{row.path}.wire.area": f"{size:g} mm^2"}, moves=False)


def _with_wire(b: int | None, wire: Wire, design: Design) -> Design:
    drive = design.drive
    if b is not None:
        return put_branch(design, b, replace(drive.branches[b], wire=wire))
    return replace(design, drive=replace(drive, supply=replace(drive.supply, wire=wire) if drive.supply else None))


def _plate(design: Design, row: UseRow) -> Iterator[Change]:
    b = branch_of(row.path)
    source, fit = design.drive.branches[b].source, design.fit
    if not isinstance(source, Motor) or source.mount is None:
        return
    now = source.mount.thickness or (fit.plate.thickness if fit and fit.plate else None)
    for step in range(1, FARTHEST) if now else ():
        size = round(1e3 * (now or 0.0) + STEP * step, 3)
        apply = partial(_with_source, b, replace(source, mount=replace(source.mount, thickness=1e-3 * size)))
        yield Change(f"plate of {size:g} mm", apply, {f"{row.path}.mount.thickness": f"{size:g} mm"}, moves=False)


def _with_source(b: int, source: Motor, design: Design) -> Design:
    return put_branch(design, b, replace(design.drive.branches[b], source=source))


def _hub(design: Design, row: UseRow) -> Iterator[Change]:
    """One screw more, a larger screw, a flat; a longer key."""
    stage: Any = stage_at(design, row.path)
    hub = stage.hub(row.member or "")
    for words, key, value, typed in _held_better(hub, row):
        better = {f"{row.member}_hub": replace(hub, **{key: value})}
        apply = with_stage(row.path, partial(_with_hub, better))
        yield Change(words, apply, {f"{row.path}.{row.member}_hub.{key}": typed}, moves=False)


def _with_hub(better: Mapping[str, Hub], stage: Any) -> Any:
    return replace(stage, **better)


def _held_better(hub: Hub, row: UseRow) -> Iterator[tuple[str, str, Any, Any]]:
    if hub.torque is not None:
        return
    if hub.by == "key" and hub.length is not None:
        length = round(1e3 * hub.length * max(row.use or 1.0, 1.0) / 0.8 + 0.5)
        yield f"key of {length} mm", "length", 1e-3 * length, f"{length} mm"
    if hub.by == "set screw" and not hub.flat:
        yield "a flat under the screw", "flat", True, True
    if hub.screw is not None:
        if hub.count < MOST_SCREWS:
            yield f"{hub.count + 1} screws", "count", hub.count + 1, hub.count + 1
        sizes = list(SCREWS)
        for screw in sizes[sizes.index(hub.screw) + 1 :] if hub.screw in SCREWS else ():
            yield f"screws of {screw}", "screw", screw, screw


_SIZES: dict[str, Callable[[Design, UseRow], Iterator[Change]]] = {
    "shaft_stress": _shaft,
    "shaft_fatigue": _shaft,
    "axle_stress": _axle,
    "wire": _wire,
    "plate_tilt": _plate,
    "key": _hub,
    "set_screw": _hub,
    "clamp": _hub,
}
