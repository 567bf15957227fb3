"""What a design needs: everything that has to be there before it can be put together, told by its sizes."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

from ydrometer.base.tables.keys import key_for, length_in
from ydrometer.build import jobs
from ydrometer.build.line import Between, Sitting
from ydrometer.build.workshop import BuildShop, plate_path, spacers_wanted
from ydrometer.document.mounting import Plate, ShaftMount
from ydrometer.document.sources import Engine, Motor
from ydrometer.document.stages import Member, Stage
from ydrometer.document.stages.assembly import Fitting, Job, known_sizes, mm, screw_words
from ydrometer.document.stages.plane import Loop

SHARED = ("locker", "grease", "retaining compound")
"""Kinds that come out of a tube, which serves several vehicles."""
BEARINGS = 2
"""Of a shaft of which nobody says how it is carried."""
MADE = ("plate", "eccentric bush")
"""Kinds that are made, by the step that puts them in."""
SIZE_OF = {"screws": "thread and length", "key": "section and length"}
UNSIZED = (*SHARED, "guard", "switch", "strap", "cable ties", "shims", "brake", "throttle", "tensioner", "own")
"""Kinds of which any will do, or that are made for their place."""


@dataclass(frozen=True, slots=True)
class Need:
    """One thing needed.

    Attributes:
        kind: of the bin's parts, or of a sundry. words: what it is. number: of all units. where: paths of the design.
        sizes: by which a part is told, SI, by their keys in the bin. asks: which of its sizes nobody has given.
        wishes: least sizes that it must have where it has them. shaft: on which it goes: across, m, and its shape.
        comes_with: kind of part that may bring it along. may_be_longer: it is cut to its length, as a chain is.
        mass: of one, kg, where the design says it.
    """

    kind: str
    words: str
    number: int
    where: tuple[str, ...]
    sizes: Mapping[str, Any] = field(default_factory=dict)
    asks: str = ""
    wishes: Mapping[str, float] = field(default_factory=dict)
    shaft: tuple[float, str] | None = None
    comes_with: str = ""
    may_be_longer: bool = False
    mass: float | None = None

    @property
    def identity(self) -> tuple[Any, ...]:
        """What tells it from another need."""
        return self.kind, self.words, tuple(self.sizes.items()), tuple(self.wishes.items()), self.shaft

    @property
    def which(self) -> str:
        """What has to be found out before it can be bought, as a question; empty where nothing has."""
        return f"Which? Nobody has given its {self.asks}." if self.asks else ""

    @property
    def told(self) -> bool:
        """Whether it can be told from others of its kind: by a size, or because any will do."""
        return bool(self.sizes) or self.kind in UNSIZED


def needs(shop: BuildShop) -> list[Need]:
    """Everything that a design needs, each thing once with all its places, in the order of power.

    Args:
        shop: of the design.
    """
    units = shop.design.drive.units
    unit = list(jobs.of_unit(shop))
    every = [*_sources(shop), *_stages(shop), *_shafts(shop), *_fitted(unit)]
    gathered: dict[tuple[Any, ...], Need] = {}
    for need in [*(replace(need, number=units * need.number) for need in every), *_once(shop, unit)]:
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
            asks = "" if limit else "current limit"
            yield Need("controller", words, count, (f"{path}.controller",), sizes, asks, comes_with="motor")
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
        for wheels, member in zip(_alike(shop, path), stage.members, strict=True):
            yield _wheel(shop, stage, wheels, member)
        if isinstance(stage.in_plane, Loop):
            yield from _loop(shop, between)
        elif not stage.members:
            yield _box(stage, path)


def _alike(shop: BuildShop, path: str) -> list[list[Sitting]]:
    """The wheels of a stage, the equal drivers of several motors together."""
    wheels = shop.line.of(path)
    drivers = [wheel for wheel in wheels if wheel.name.startswith(f"{path} driver")]
    return [drivers, *([wheel] for wheel in wheels if wheel not in drivers)] if wheels else []


def _wheel(shop: BuildShop, stage: Stage, wheels: Sequence[Sitting], member: Member) -> Need:
    form, measure, wheel = member.form, member.measure, wheels[0]
    sizes: dict[str, Any] = {form.measure: int(measure) if form.toothed else measure}
    words = wheel.words
    if stage.tooth_size:
        sizes["tooth_size"] = stage.tooth_size
        words += f", {form.size_words(stage.tooth_size)}"
    said, on_drum = shop.mount(wheel.shaft), shop.on_drum(wheel.shaft)
    # What sits on a clutch has the bore of its drum, of which the design says nothing.
    words += ", bore as the clutch's drum" if on_drum else ""
    shaft = (said.diameter, said.shape) if said.diameter and not on_drum else None
    wishes = {"width": stage.wheel_width} if stage.wheel_width else {}
    asks = "" if stage.tooth_size or not form.size_keys else f"{form.size_keys[0]}"
    names, times = tuple(wheel.name for wheel in wheels), sum(wheel.times for wheel in wheels)
    return Need(wheel.kind, words, times, names, sizes, asks, wishes, shaft)


def _loop(shop: BuildShop, between: Between) -> Iterator[Need]:
    stage, path = between.stage, between.path
    lies, size = stage.in_plane, stage.tooth_size
    assert isinstance(lies, Loop)  # see _stages
    length = shop.loop_length(between)
    pieces = round(length / size) if length and size and lies.pieces else 0
    is_odd = lies.opens and pieces % 2 == 1
    if is_odd and length and size:
        length -= size  # chains have pairs of links; the odd one is a part of its own
    # Of a loop without a length no part is the right one.
    sizes: dict[str, Any] = ({"loop_pitch": size} if size else {}) | {"around": length}
    words = f"{lies.noun}, {lies.named(length, size or 1.0)}" if length else lies.noun
    words += f", pitch {1e3 * size:.6g} mm" if size else ""
    if stage.loop_width:
        sizes["width"] = stage.loop_width
        words += f", {mm(stage.loop_width)} wide"
    asks = "" if length else "length"
    yield Need(lies.part, words, 1, (path,), sizes, asks, may_be_longer=lies.opens)
    if lies.opens:
        yield from _links(path, size, odd=is_odd)
    said = shop.fit.loop(path)
    if said is not None and said.tensioner is not None:
        across = said.tensioner.diameter
        yield Need("tensioner", f"tensioner, wheel {mm(across)} across", 1, (path,), {"diameter": across})


def _links(path: str, pitch: float | None, *, odd: bool) -> Iterator[Need]:
    """What joins a chain."""
    across = f", pitch {1e3 * pitch:.6g} mm" if pitch else ""
    sizes, asks = ({"pitch": pitch}, "") if pitch else ({}, "pitch")
    for kind in ("joining link", *(("offset link",) if odd else ())):
        yield Need(kind, f"{kind}{across}", 1, (path,), sizes, asks)


def _box(stage: Stage, path: str) -> Need:
    """A closed stage; one of a kind that no bin holds is to be bought or made."""
    sizes = {stage.ratio_key: getattr(stage, stage.ratio_key)} if stage.whole_part else {}
    return Need(
        stage.whole_part or stage.kind, f"{stage.noun}, {stage.sizes_words}", 1, (path,), sizes, mass=stage.mass
    )


def _shafts(shop: BuildShop) -> Iterator[Need]:
    for path in shop.line.shafts:
        said = shop.mount(path)
        if path not in shop.line.sources and path not in shop.line.hidden:
            yield _shaft(shop, path, said)
            yield from _on_shaft(said)
        if said.shape == "keyway":
            yield from _keys(shop, path, said)
        if said.bolts is not None:
            length = shop.screws(path)
            number = said.bolts.count * shop.line.sources.get(path, 1)
            sizes = {"hole": said.bolts.hole, "length": length, "uncut": said.bolts.length}
            asks = "" if length else "length"
            yield Need("screws", screw_words(said.bolts.hole, length), number, (path,), sizes, asks)
    for plate in shop.plates:
        if plate.mounting.plate is not None:
            yield _plate(plate.mounting.plate, plate_path(plate))


def _given(**sizes: float | None) -> tuple[dict[str, float], str]:
    """The sizes that somebody has given, and which nobody has, in words."""
    lacking = [name.replace("_", " ") for name, size in sizes.items() if size is None]
    return known_sizes(**sizes), " and ".join(lacking)


def _shaft(shop: BuildShop, path: str, said: ShaftMount) -> Need:
    words = shop.line.shafts[path]
    across = f", {mm(said.diameter)} {said.shape}" if said.diameter else ""
    long = f", {mm(said.length)} long" if said.length else ""
    sizes, asks = _given(diameter=said.diameter, length=said.length)
    words = f"{words if words == 'axle' else 'shaft'}{across}{long}"
    return Need("shaft", words, 1, (path,), sizes, asks, may_be_longer=True)


def _on_shaft(said: ShaftMount) -> Iterator[Need]:
    """Bearings and spacers of a shaft's stack, and what its gaps want; two bearings where nothing is said of any."""
    on = f", on {mm(said.diameter)}" if said.diameter else ""
    # In an eccentric the plate's hole is that of the bush.
    hole = None if said.eccentric else said.opening
    in_hole = f", in a {mm(hole)} hole" if hole else ""
    stack = said.stack
    carrying = [item for item in stack.items if item.bearing] if stack else []
    if not carrying:
        sizes, asks = _given(bore=said.diameter, outside_diameter=hole)
        yield Need("bearing", f"bearing{on}{in_hole}", BEARINGS, (said.shaft,), sizes, asks)
    for item in carrying:
        sizes, asks = _given(bore=said.diameter, outside_diameter=hole, width=item.width)
        yield Need("bearing", f"bearing{on}{in_hole}, {mm(item.width)} wide", 1, (said.shaft,), sizes, asks)
    spacers = [item.width for item in stack.items if item.spacer] if stack else []
    gaps = [gap for gap in spacers_wanted(said) if gap] if stack else []
    for width in (*spacers, *gaps):
        sizes, asks = _given(bore=said.diameter, thickness=width)
        yield Need("spacer", f"spacer {mm(width)}{on}", 1, (said.shaft,), sizes, asks)


def _keys(shop: BuildShop, path: str, said: ShaftMount) -> Iterator[Need]:
    """A key for each wheel on a shaft, by its section and the longest that the hub takes; on a drum the clutch's."""
    key = key_for(said.diameter) if said.diameter else None
    words = f"key {1e3 * key.width:g} × {mm(key.height)}" if key else "key"
    section = {"width": key.width, "height": key.height} if key else {}
    if shop.on_drum(path):
        asks = "length" if key else "section and length"
        yield Need("key", f"{words}, of the clutch", shop.line.sources[path], (path,), section, asks)
        return
    for wheel in shop.line.on(path):
        hub = _hub(said, wheel)
        length = length_in(hub) if hub else None
        long = f", {mm(length)} long" if length else ""
        asks = "" if key and length else "length" if key else "section and length"
        sizes = section | ({"length": length} if length else {})
        yield Need("key", f"{words}{long}", wheel.times, (path,), sizes, asks)


def _hub(said: ShaftMount, wheel: Sitting) -> float | None:
    """How wide a wheel's hub is, as its stack has it."""
    items = said.stack.items if said.stack else ()
    return next((item.width for item in items if item.wheel == wheel.name), None)


def _plate(plate: Plate, path: str) -> Need:
    low, bottom, high, top = plate.corners
    thick = f", {mm(plate.thickness)} thick" if plate.thickness else ""
    words = f"plate {mm(high - low)} × {mm(top - bottom)}{thick}"
    sizes, asks = _given(length=high - low, width=top - bottom, thickness=plate.thickness)
    return Need("plate", words, 1, (path,), sizes, asks)


def _fitted(all_jobs: Iterable[Job]) -> Iterator[Need]:
    """Small things that jobs put in."""
    for job in all_jobs:
        for fitting in job.fittings:
            asks = "" if fitting.kind in (*UNSIZED, *MADE) else _asked(fitting)
            yield Need(fitting.kind, fitting.words, fitting.number, (job.place,), fitting.sizes, asks)


def _asked(fitting: Fitting) -> str:
    """Which of its sizes nobody has given."""
    if not fitting.sizes:
        return SIZE_OF.get(fitting.kind, "size")
    return "length" if fitting.kind == "screws" and "length" not in fitting.sizes else ""


def _once(shop: BuildShop, unit: Sequence[Job]) -> Iterator[Need]:
    """What the whole vehicle needs: supply, fuse, wheels, what comes out of tubes, and what its own jobs put in."""
    supply = shop.design.drive.supply
    if supply is not None:
        words = f"{supply.kind}, {shop.volts:.4g} V" if shop.volts else supply.kind
        yield Need(supply.kind, words, 1, ("drive.supply",), {"supply": supply})
        if supply.kind == "battery":
            rating = shop.fuse.rating if shop.fuse else None
            sizes, asks = _given(rating=rating)
            words = f"fuse, {rating:.4g} A" if rating else "fuse or breaker"
            yield Need("fuse", words, 1, ("drive.supply",), sizes, asks)
    yield from _on_the_ground(shop)
    yield from _from_tubes(shop, unit)
    yield from _fitted(jobs.of_vehicle(shop))


def _on_the_ground(shop: BuildShop) -> Iterator[Need]:
    """Wheels, driven ones on the axle and free ones on their own; or tracks with what drives them."""
    vehicle, axle = shop.design.vehicle, shop.mount(shop.line.axle)
    across, where = vehicle.wheel_diameter, ("vehicle.wheel_diameter",)
    on_axle = (axle.diameter, axle.shape) if axle.diameter else None
    if vehicle.tracks:
        yield Need("track", "track", vehicle.tracks, where, {}, "length, width and pitch")
        sprocket = f"driving sprocket of the track, {mm(across)}"
        yield Need("track sprocket", sprocket, vehicle.tracks, where, {"diameter": across}, shaft=on_axle)
        return
    free = vehicle.wheels - vehicle.driven_wheels
    sizes = {"diameter": across}
    driven = f"road wheel, {mm(across)}" + (", driven" if free else "")
    yield Need("wheel", driven, vehicle.driven_wheels, where, sizes, shaft=on_axle)
    yield Need("wheel", f"road wheel, {mm(across)}, free on a bearing of its own", free, where, sizes)


def _from_tubes(shop: BuildShop, unit: Sequence[Job]) -> Iterator[Need]:
    """What serves many places: one tube, wherever it is used."""
    if shop.ways.locking == "locker":
        yield Need("locker", "thread locker, medium", 1, ("build.locking",))
    for kind, words in (("grease", "grease"), ("retaining compound", "retaining compound for bearings")):
        places = tuple(dict.fromkeys(job.place for job in unit if kind in job.uses))
        if places:
            yield Need(kind, words, 1, places)
