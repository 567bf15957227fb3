"""What a design needs: everything that has to be there before it can be put together, told by its sizes."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field, replace
from typing import Any

from ydrometer.build.line import Between, Sitting
from ydrometer.build.workshop import BuildShop, plate_path
from ydrometer.document.mounting import Plate, ShaftMount
from ydrometer.document.sources import Engine, Motor
from ydrometer.document.stages import Stage
from ydrometer.document.stages.assembly import mm
from ydrometer.document.stages.forms import Form
from ydrometer.document.stages.plane import Loop

SHARED = ("locker", "grease", "retaining compound")
"""Kinds that come out of a tube, which serves several vehicles."""
ROAD_WHEELS = 4
"""Wheels of a vehicle of which nobody says how many it has; a search counts the same."""


@dataclass(frozen=True, slots=True)
class Need:
    """One thing needed.

    Attributes:
        kind: of the bin's parts, or of a sundry. words: what it is. number: of all units. where: paths of the design.
        sizes: by which a part is told, SI, by their keys in the bin.
        wishes: least sizes that it would better have. shaft: on which it goes: across, m, and its shape.
        comes_with: kind of part that may bring it along. may_be_longer: it is cut to its length, as a chain is.
        mass: of one, kg, where the design says it.
    """

    kind: str
    words: str
    number: int
    where: tuple[str, ...]
    sizes: Mapping[str, Any] = field(default_factory=dict)
    wishes: Mapping[str, float] = field(default_factory=dict)
    shaft: tuple[float, str] | None = None
    comes_with: str = ""
    may_be_longer: bool = False
    mass: float | None = None

    @property
    def identity(self) -> tuple[Any, ...]:
        """What tells it from another need."""
        return self.kind, self.words, tuple(self.sizes.items()), tuple(self.wishes.items()), self.shaft


def needs(shop: BuildShop) -> list[Need]:
    """Everything that a design needs, each thing once with all its places, in the order of power.

    Args:
        shop: of the design.
    """
    units = shop.design.drive.units
    every = [*_sources(shop), *_stages(shop), *_shafts(shop)]
    gathered: dict[tuple[Any, ...], Need] = {}
    for need in [*(replace(need, number=units * need.number) for need in every), *_once(shop)]:
        known = gathered.get(need.identity)
        gathered[need.identity] = need if known is None else _together(known, need)
    return [need for need in gathered.values() if need.number]


def _together(first: Need, second: Need) -> Need:
    where = tuple(dict.fromkeys((*first.where, *second.where)))
    return replace(first, number=first.number + second.number, where=where)


def _sources(shop: BuildShop) -> Iterator[Need]:
    for b, branch in enumerate(shop.design.drive.branches):
        path, source, count = f"drive.branches[{b}]", branch.source, branch.count
        kind = source.kind
        motors = tuple(shaft for shaft in shop.line.sources if shaft.startswith(f"{path}."))
        yield Need(kind, source.name or kind, count, motors, {"source": _law(source)})
        if branch.controller is not None:
            limit = branch.controller.current_limit
            words = f"controller, {limit:.4g} A" if limit else "controller"
            sizes = {"controller.current_limit": limit} if limit else {}
            yield Need("controller", words, count, (f"{path}.controller",), sizes, comes_with="motor")
        if branch.clutch is not None:
            yield Need("clutch", "centrifugal clutch", count, (f"{path}.clutch",), comes_with="engine")


def _law(source: Motor | Engine) -> Any:
    """What a motor or engine does, by which two of them are the same."""
    if isinstance(source, Engine):
        return source.torque_curve
    return source.constants or source.bench_points


def _stages(shop: BuildShop) -> Iterator[Need]:
    for between in shop.line.stages:
        stage, path = between.stage, between.path
        for wheel, member in zip(_once_each(shop, path), stage.members, strict=True):
            yield _wheel(shop, stage, wheel, member.measure, member.form.part or stage.kind)
        if isinstance(stage.in_plane, Loop):
            yield from _loop(shop, between)
        elif not stage.members:
            yield _box(stage, path)


def _once_each(shop: BuildShop, path: str) -> list[Sitting]:
    """The wheels of a stage, equal drivers of several motors as one that is needed several times."""
    wheels = shop.line.of(path)
    if not wheels:
        return []
    drivers = [wheel for wheel in wheels if wheel.name.startswith(f"{path} driver")]
    times = sum(wheel.times for wheel in drivers)
    return [replace(drivers[0], times=times), *(wheel for wheel in wheels if wheel not in drivers)]


def _wheel(shop: BuildShop, stage: Stage, wheel: Sitting, measure: float, kind: str) -> Need:
    form = next(member.form for member in stage.members if member.measure == measure)
    sizes: dict[str, Any] = {form.measure: int(measure) if form.toothed else measure}
    words = wheel.words
    if stage.tooth_size:
        sizes["tooth_size"] = stage.tooth_size
        words += f", {tooth_words(form, stage.tooth_size)}"
    said, on_drum = shop.mount(wheel.shaft), shop.on_drum(wheel.shaft)
    # What sits on a clutch has the bore of its drum, of which the design says nothing.
    words += ", bore as the clutch's drum" if on_drum else ""
    shaft = (said.diameter, said.shape) if said.diameter and not on_drum else None
    wishes = {"width": stage.loop_width} if stage.loop_width else {}
    return Need(kind, words, wheel.times, (wheel.name,), sizes, wishes, shaft)


def tooth_words(form: Form, size: float) -> str:
    """The size of teeth as a shop tells it: "module 1 mm", "pitch 5 mm".

    Args:
        form: of the wheel.
        size: module or pitch, m.
    """
    return f"{'module' if form.part == 'gear' else 'pitch'} {1e3 * size:.6g} mm"


def _loop(shop: BuildShop, between: Between) -> Iterator[Need]:
    stage, path = between.stage, between.path
    lies, size = stage.in_plane, stage.tooth_size
    assert isinstance(lies, Loop)  # see _stages
    length = shop.loop_length(between)
    pieces = round(length / size) if length and size and lies.pieces else 0
    is_odd = lies.step == 2 and pieces % 2 == 1
    if is_odd and length and size:
        length -= size  # chains have pairs of links; the odd one is a part of its own
    # Of a loop without a length no part is the right one.
    sizes: dict[str, Any] = ({"loop_pitch": size} if size else {}) | {"around": length}
    words = f"{lies.noun}, {lies.named(length, size or 1.0)}" if length else lies.noun
    words += f", pitch {1e3 * size:.6g} mm" if size else ""
    wishes = {"width": stage.loop_width} if stage.loop_width else {}
    words += f", {mm(stage.loop_width)} wide" if stage.loop_width else ""
    yield Need(lies.part, words, 1, (path,), sizes, wishes, may_be_longer=lies.step == 2)
    if lies.step == 2:
        across = f", pitch {1e3 * size:.6g} mm" if size else ""
        yield Need("joining link", f"joining link{across}", 1, (path,))
        if is_odd:
            yield Need("offset link", f"offset link{across}", 1, (path,))
    said = shop.fit.loop(path)
    if said is not None and said.tensioner is not None:
        yield Need("tensioner", f"tensioner, wheel {mm(said.tensioner.diameter)} across", 1, (path,))


def _box(stage: Stage, path: str) -> Need:
    """A closed stage; one of a kind that no bin holds is to be bought or made."""
    sizes = {stage.ratio_key: getattr(stage, stage.ratio_key)} if stage.whole_part else {}
    return Need(
        stage.whole_part or stage.kind, f"{stage.noun}, {stage.sizes_words}", 1, (path,), sizes, mass=stage.mass
    )


def _shafts(shop: BuildShop) -> Iterator[Need]:
    for path in shop.line.shafts:
        said = shop.mount(path)
        bare = path not in shop.line.sources and path not in shop.line.hidden
        if bare:
            yield _shaft(shop, path, said)
            yield from _on_shaft(said)
        if said.shape == "keyway":
            number = shop.line.sources[path] if shop.on_drum(path) else len(shop.line.on(path))
            yield Need("key", f"key, shaft {mm(said.diameter)}" if said.diameter else "key", number, (path,))
        if said.bolts is not None:
            length = shop.screws(path)
            long = f", {mm(length)} long" if length else ""
            number = said.bolts.count * shop.line.sources.get(path, 1)
            sizes = {"hole": said.bolts.hole, "length": length, "uncut": said.bolts.length}
            yield Need("screws", f"screws for {mm(said.bolts.hole)} holes{long}", number, (path,), sizes)
    for plate in shop.plates:
        if plate.mounting.plate is not None:
            yield _plate(plate.mounting.plate, plate_path(plate))


def _shaft(shop: BuildShop, path: str, said: ShaftMount) -> Need:
    words = shop.line.shafts[path]
    across = f", {mm(said.diameter)} {said.shape}" if said.diameter else ""
    long = f", {mm(said.length)} long" if said.length else ""
    return Need("shaft", f"{words if words == 'axle' else 'shaft'}{across}{long}", 1, (path,))


def _on_shaft(said: ShaftMount) -> Iterator[Need]:
    """Bearings and spacers of a shaft's stack; two bearings where nothing says what is on it."""
    across = {"bore": said.diameter} if said.diameter else {}
    hole = {"outside_diameter": said.opening} if said.opening else {}
    on = f", on {mm(said.diameter)}" if said.diameter else ""
    in_hole = f", in a {mm(said.opening)} hole" if said.opening else ""
    if said.stack is None:
        yield Need("bearing", f"bearing{on}{in_hole}", 2, (said.shaft,), {**across, **hole})
        return
    for item in said.stack.items:
        if item.bearing or item.name.startswith("bearing"):
            words = f"bearing{on}{in_hole}, {mm(item.width)} wide"
            yield Need("bearing", words, 1, (said.shaft,), {**across, **hole, "width": item.width})
        elif item.spacer:
            words = f"spacer {mm(item.width)}{on}"
            yield Need("spacer", words, 1, (said.shaft,), {**across, "thickness": item.width})


def _plate(plate: Plate, path: str) -> Need:
    low, bottom, high, top = plate.corners
    thick = f", {mm(plate.thickness)} thick" if plate.thickness else ""
    words = f"plate {mm(high - low)} × {mm(top - bottom)}{thick}"
    return Need("plate", words, 1, (path,))


def _once(shop: BuildShop) -> Iterator[Need]:
    """What the whole vehicle needs: supply, fuse, wheels, adapters, and what comes out of tubes."""
    supply, drive = shop.design.drive.supply, shop.design.drive
    if supply is not None:
        words = f"{supply.kind}, {shop.volts:.4g} V" if shop.volts else supply.kind
        yield Need(supply.kind, words, 1, ("drive.supply",), {"supply": supply})
        if supply.kind == "battery":
            words = f"fuse, {shop.fuse.rating:.4g} A" if shop.fuse else "fuse or breaker"
            yield Need("fuse", words, 1, ("drive.supply",))
    across = shop.design.vehicle.wheel_diameter
    axle = shop.mount(shop.line.axle)
    yield Need(
        "wheel",
        f"road wheel, {mm(across)}",
        ROAD_WHEELS,
        ("vehicle.wheel_diameter",),
        {"diameter": across},
        shaft=(axle.diameter, axle.shape) if axle.diameter else None,
    )
    for number, adapter in enumerate(shop.fit.adapters):
        words = f"adapter plate {adapter.name}, {mm(adapter.outside)} across"
        yield Need("plate", words.replace("  ", " "), adapter.plates, (f"fit.adapters[{number}]",))
    yield from _from_tubes(shop, drive.units)


def _from_tubes(shop: BuildShop, units: int) -> Iterator[Need]:
    if shop.ways.locking == "locker":
        yield Need("locker", "thread locker, medium", 1, ("build.locking",))
    yield Need("grease", "grease", 1, tuple(between.path for between in shop.line.stages))
    glued = [path for path in shop.line.shafts if shop.mount(path).opening and path not in shop.line.sources]
    if glued:
        yield Need("retaining compound", "retaining compound for bearings", 1, tuple(glued))
