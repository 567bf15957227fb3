"""What does not go together on a plate, and by how much: distances, room, and what would touch.

Each check is a function of one subject and stands in `CHECKS`; it yields what it finds. Nothing is taken for clear
that is not known to be: a shaft is thought to go through everything, unless stacks say how deep it lies.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from itertools import combinations, product
from typing import Literal

from ydrometer.design import Design, loop_paths, shaft_paths
from ydrometer.fit import around, loops, pairs
from ydrometer.fit.bores import SAME, Seat, seat
from ydrometer.fit.line import AtHand, Plane, Tie, Wheel
from ydrometer.fit.placing import NOISE, Reach
from ydrometer.fit.standing import Stand, distances
from ydrometer.mounting import Mounting, Point, Shaft, Tensioner
from ydrometer.stages import Gear

TOUCH = 1e-9
"""m; what is nearer than that touches."""
V_BELT_ON, V_BELT_TIGHTEN = 0.015, 0.03
"""Ways by which a V-belt's distance has to be shortened to put it on, and lengthened to tighten it, as shares of its
length (DIN 2218)."""
CHAIN_WEAR = 0.01
"""Share of a chain's distance to be lengthened as it wears (makers' manuals of chains: 2 % longer, then replaced)."""
BELT_TIGHTEN = 0.002
"""Share of a toothed belt's length by which its distance has to be lengthened to tighten it (makers' manuals)."""

Level = Literal["clash", "mind"]


@dataclass(frozen=True, slots=True)
class Clash:
    """Something that does not go, or is to be minded.

    Attributes:
        level. text: what, by how much, and what would help. path: of the stage or shaft it is about.
        amount: by how much, m, 0 where that says nothing. at: where, m; None where it is nowhere on the plate.
    """

    level: Level
    text: str
    path: str
    amount: float
    at: Point | None


@dataclass(frozen=True, slots=True)
class Setup:
    """All that the checks look at: a design with its section, its plane, where all stands, and what is at hand."""

    design: Design
    mounting: Mounting
    plane: Plane
    stands: Mapping[str, Stand]
    hand: AtHand

    def at(self, shaft: str) -> Point:
        """Where a shaft stands."""
        return self.stands[shaft].at

    def distance(self, tie: Tie) -> float:
        """Between the two shafts of a tie, m; an eccentric is turned as near to what is wanted as it goes."""
        stand = math.dist(self.at(tie.driver.shaft), self.at(tie.driven.shaft))
        throw = self.throw(tie)
        wanted = min((reach.best for reach in tie.reaches), key=lambda best: abs(best - stand - throw), default=stand)
        return min(max(wanted, stand), stand + 2.0 * throw) if throw else stand

    def throw(self, tie: Tie) -> float:
        """Of the eccentric of either shaft, m; 0 without one."""
        return next((e for path in tie.shafts if (e := self.shaft(path).eccentric)), 0.0)

    def shaft(self, path: str) -> Shaft:
        """How a shaft is mounted."""
        return self.mounting.of(path) or Shaft(shaft=path, mount="free")

    @property
    def road_radius(self) -> float:
        """Of the wheel on the ground under load, m."""
        return 0.5 * self.design.vehicle.wheel_diameter

    @property
    def ground(self) -> float | None:
        """Height of the ground, m, where the axle stands on this plate: the tyre is pressed together as measured."""
        return None if self.plane.last is None else self.at(self.plane.last)[1] - self.road_radius


def clashes(setup: Setup) -> list[Clash]:
    """All that does not go, then all that is to be minded; the worst first."""
    found = [clash for check in CHECKS for clash in check(setup)]
    return sorted(found, key=lambda clash: (clash.level != "clash", -clash.amount))


def _mm(size: float) -> str:
    return f"{size * 1e3:.2f} mm"


def _strangers(setup: Setup) -> Iterator[Clash]:
    """What is said of mounting is about shafts and loops that there are."""
    for said, known in (
        ([shaft.shaft for shaft in setup.mounting.shafts], shaft_paths(setup.design)),
        ([loop.stage for loop in setup.mounting.loops], loop_paths(setup.design)),
    ):
        for path in said:
            if path not in known:
                text = f"something is said of the mounting of {path}, which this design does not have"
                yield Clash("mind", text, path, 0.0, None)


def _on_the_plate(setup: Setup) -> Iterator[Clash]:
    """Shafts on holes stand on holes; none stands beside the plate."""
    plate = setup.mounting.plate
    if plate is None:
        return
    left, bottom, right, top = plate.corners
    for path in setup.plane.shafts:
        at, shaft = setup.at(path), setup.shaft(path)
        name = setup.plane.named(path)
        off = math.dist(at, plate.nearest(at))
        if shaft.mount == "holes" and off > 1e-6:
            yield Clash("clash", f"the {name} stands {_mm(off)} off the nearest hole", path, off, at)
        beyond = max(left - at[0], at[0] - right, bottom - at[1], at[1] - top)
        if beyond > NOISE:
            yield Clash("clash", f"the {name} stands {_mm(beyond)} beside the plate", path, beyond, at)


def _distances(setup: Setup) -> Iterator[Clash]:
    """Each tie has a distance that suits it."""
    for tie in setup.plane.ties:
        distance = setup.distance(tie)
        if tie.is_loop and distance <= tie.free + TOUCH:
            text = f"the wheels of the {_word(tie)} touch: their shafts stand {_mm(distance)} apart"
            yield Clash("clash", text, tie.path, tie.free - distance, _middle(setup, tie))
        elif tie.reaches and not any(r.low - NOISE <= distance <= r.high + NOISE for r in tie.reaches):
            nearest = min(tie.reaches, key=lambda reach: _off(reach, distance))
            yield _wrong_distance(setup, tie, nearest, distance)
    for path, text in setup.plane.messages.items():
        yield Clash("mind" if text.startswith("no ") else "clash", text, path, 0.0, None)


def _off(reach: Reach, distance: float) -> float:
    return max(reach.low - distance, distance - reach.high)


def _wrong_distance(setup: Setup, tie: Tie, reach: Reach, distance: float) -> Clash:
    near = distance < reach.low
    off = reach.best - distance if near else distance - reach.best
    told = f"the shafts stand {_mm(distance)} apart, {_mm(reach.best)} is wanted"
    if tie.is_loop:
        way = "loose" if near else "short"
        text = f"{_word(tie)} of {reach.name}: too {way} by {_mm(2.0 * off)}; {told}"
    elif tie.driven.form == "ring":
        text = f"{tie.driver.words} in the ring: {'too much play' if near else 'too tight'}; {told}"
    elif near:
        text = f"{tie.driver.words} and {tie.driven.words} do not go together: {_mm(off)} too close; {told}"
    else:
        teeth = tie.driver.teeth or 0, tie.driven.teeth or 0
        angle = _pressure_angle(setup, tie)
        play = pairs.play(distance, tie.driver.size, *teeth, angle)
        text = f"{tie.driver.words} and {tie.driven.words} have {_mm(play)} play, {_mm(off)} too far apart; {told}"
    return Clash("clash", text, tie.path, off, _middle(setup, tie))


def _pressure_angle(setup: Setup, tie: Tie) -> float:
    stage = stage_at(setup.design, tie.path)
    return stage.pressure_angle if isinstance(stage, Gear) else math.radians(20.0)


def stage_at(design: Design, path: str) -> object:
    """The stage of a path such as "drive.branches[0].stages[1]"."""
    numbers = [int(part.split("]")[0]) for part in path.split("[")[1:]]
    if path.startswith("drive.branches"):
        return design.drive.branches[numbers[0]].stages[numbers[1]]
    return design.drive.stages[numbers[0]]


def _middle(setup: Setup, tie: Tie) -> Point:
    one, other = setup.at(tie.driver.shaft), setup.at(tie.driven.shaft)
    return 0.5 * (one[0] + other[0]), 0.5 * (one[1] + other[1])


def _word(tie: Tie) -> str:
    return {"belt": "belt", "chain": "chain", "v_belt": "V-belt"}.get(tie.kind, "pair")


def _slots(setup: Setup) -> Iterator[Clash]:
    """A slot is long enough, and leaves the way to put a loop on and to tighten it."""
    for path in setup.plane.shafts:
        shaft, stand = setup.shaft(path), setup.stands[path]
        if shaft.slot is None:
            continue
        if abs(stand.short) > NOISE:
            end = "end" if stand.short > 0.0 else "start"
            name = setup.plane.named(path)
            text = f"the slot of the {name} would have to go {_mm(abs(stand.short))} beyond its {end}"
            yield Clash("clash", text, path, abs(stand.short), stand.at)
            continue
        for tie in setup.plane.ties:
            if tie.is_loop and path in tie.shafts and tie.reaches:
                yield from _room(setup, tie, path, shaft)


def _room(setup: Setup, tie: Tie, path: str, shaft: Shaft) -> Iterator[Clash]:
    assert shaft.slot is not None  # only slots leave room
    partner = setup.at(tie.driven.shaft if path == tie.driver.shaft else tie.driver.shaft)
    low, high = distances(shaft.slot, partner)
    distance = setup.distance(tie)
    on, tighten = room_wanted(tie, distance)
    for word, has, wants in (("put it on", distance - low, on), ("tighten it", high - distance, tighten)):
        if has < wants - NOISE:
            told = f"{_mm(max(0.0, has))} of the slot left to {word}, {_mm(wants)} is usual"
            other = "shorter" if word == "tighten it" else "longer"
            text = f"{_word(tie)}: {told}; lengthen the slot by {_mm(wants - has)}, or take a {other} {_word(tie)}"
            level: Level = "clash" if word == "put it on" else "mind"
            yield Clash(level, text, tie.path, wants - has, setup.at(path))


def room_wanted(tie: Tie, distance: float) -> tuple[float, float]:
    """By how much the distance of a loop has to be made shorter to put it on, and longer to tighten it, m.

    A toothed belt has to come over the teeth, by about a pitch; a chain is closed in its place.
    """
    length = 2.0 * distance + math.pi * (tie.driver.pitch_radius + tie.driven.pitch_radius)
    if tie.kind == "v_belt":
        return V_BELT_ON * length, V_BELT_TIGHTEN * length
    if tie.kind == "chain":
        return 0.0, CHAIN_WEAR * distance
    return tie.driver.size, BELT_TIGHTEN * length


def _tensioned(setup: Setup) -> Iterator[Clash]:
    """A loop with a tensioner is as long as the way around all three."""
    for tie in setup.plane.ties:
        lengths = tie.lengths
        said = setup.mounting.loop(tie.path)
        if not (tie.is_loop and said and said.tensioner and lengths):
            continue
        at = said.tensioner.at
        wheels = tensioned(setup, tie, said.tensioner)
        try:
            loop = around.taut(wheels)
        except ValueError:
            yield Clash("clash", f"the tensioner stands in a wheel of the {_word(tie)}", tie.path, 0.0, at)
            continue
        third = next(i for i, wheel in enumerate(wheels) if (wheel.x, wheel.y) == at)
        if loop.wraps[third] > math.pi:
            yield Clash("clash", f"the tensioner does not reach the {_word(tie)}", tie.path, 0.0, at)
            continue
        way = loop.length
        length, name = min(lengths, key=lambda entry: abs(entry[0] - way))
        off = length - way
        if abs(off) > setup.mounting.loop_tolerance:
            word = "longer" if off > 0.0 else "shorter"
            text = f"{_word(tie)} of {name} is {_mm(abs(off))} {word} than the way around with the tensioner"
            yield Clash("clash", text, tie.path, abs(off), at)


def tensioned(setup: Setup, tie: Tie, tensioner: Tensioner) -> list[around.Round]:
    """The wheels of a loop with its tensioner, anticlockwise from the driver."""
    one, other = setup.at(tie.driver.shaft), setup.at(tie.driven.shaft)
    third = around.Round(*tensioner.at, 0.5 * tensioner.diameter, tensioner.outside)
    first, second = around.Round(*one, tie.driver.pitch_radius), around.Round(*other, tie.driven.pitch_radius)
    left = (other[0] - one[0]) * (third.y - one[1]) - (other[1] - one[1]) * (third.x - one[0]) > 0.0
    return [first, second, third] if left else [first, third, second]


def _wraps(setup: Setup) -> Iterator[Clash]:
    """Enough teeth hold a belt; a chain has an even number of links."""
    for tie in setup.plane.ties:
        if tie.kind == "belt" and setup.distance(tie) > tie.free:
            radii = tie.driver.pitch_radius, tie.driven.pitch_radius
            wraps = loops.wraps(*radii, setup.distance(tie))
            for wheel, wrap in zip((tie.driver, tie.driven), wraps, strict=True):
                held = loops.in_mesh(wheel.teeth or 0, wrap)
                if held < loops.LEAST_IN_MESH:
                    text = f"{held} teeth of the {wheel.words} hold the belt: fewer than {loops.LEAST_IN_MESH}"
                    yield Clash("mind", f"{text} carry less", tie.path, 0.0, setup.at(wheel.shaft))
        links = getattr(stage_at(setup.design, tie.path), "links", None)
        if links and links % 2:
            text = f"{links} links need an offset link, which carries less: take an even number"
            yield Clash("mind", text, tie.path, 0.0, _middle(setup, tie))


def _wheels_and_shafts(setup: Setup) -> Iterator[Clash]:
    """A wheel clears the shafts beside it, and what lies in the same depth on another shaft."""
    for wheel in setup.plane.wheels:
        mates = {shaft for tie in setup.plane.ties if wheel in tie.wheels for shaft in tie.shafts}
        for path in setup.plane.shafts:
            if path in mates or _passes(setup, wheel, path):
                continue
            radius = 0.5 * (setup.shaft(path).diameter or 0.0)
            yield from _too_near(setup, wheel, path, radius, f"the {setup.plane.named(path)}")
    for one, other in combinations(setup.plane.wheels, 2):
        if one.path != other.path and one.shaft != other.shaft and _same_depth(setup.mounting, one, other):
            yield from _too_near(setup, one, other.shaft, other.outer_radius, f"the {other.words}")


def _too_near(setup: Setup, wheel: Wheel, path: str, radius: float, name: str) -> Iterator[Clash]:
    distance = math.dist(setup.at(wheel.shaft), setup.at(path))
    short = wheel.outer_radius + radius + setup.mounting.gap - distance
    if short > NOISE and wheel.form != "ring":
        word = "runs into" if short > setup.mounting.gap else "leaves too little to"
        text = f"the {wheel.words} {word} {name}: {_mm(short)} more is wanted"
        yield Clash("clash", text, wheel.path, short, _rim(setup.at(wheel.shaft), setup.at(path), wheel.outer_radius))


def _rim(centre: Point, towards: Point, radius: float) -> Point:
    distance = math.dist(centre, towards) or 1.0
    share = min(1.0, radius / distance)
    return centre[0] + share * (towards[0] - centre[0]), centre[1] + share * (towards[1] - centre[1])


def _depth(mounting: Mounting, wheel: Wheel) -> tuple[float, float] | None:
    """From where to where along its shaft a wheel reaches, m, from the first face; None where no stack says so."""
    shaft = mounting.of(wheel.shaft)
    if shaft is None or shaft.stack is None:
        return None
    end = 0.0
    for item in shaft.stack.items:
        begin = end if item.at is None else item.at
        end = begin + item.width
        if item.wheel == wheel.name:
            return begin, end
    return None


def _same_depth(mounting: Mounting, one: Wheel, other: Wheel) -> bool:
    """Whether stacks say that two wheels lie in the same depth."""
    spans = _depth(mounting, one), _depth(mounting, other)
    return bool(spans[0] and spans[1] and spans[0][0] < spans[1][1] - TOUCH and spans[1][0] < spans[0][1] - TOUCH)


def _passes(setup: Setup, wheel: Wheel, path: str) -> bool:
    """Whether a shaft is known to end before the depth in which a wheel lies."""
    span, shaft = _depth(setup.mounting, wheel), setup.shaft(path)
    return bool(span and shaft.length is not None and shaft.length <= span[0])


def _frame(setup: Setup) -> Iterator[Clash]:
    """What turns clears the lines of the frame, and so do the runs of loops."""
    for line in setup.mounting.frame:
        name = line.name or "frame"
        for wheel in setup.plane.wheels:
            if wheel.form == "ring":
                continue
            at = setup.at(wheel.shaft)
            near = nearest_on(line.start, line.end, at)
            short = wheel.outer_radius + setup.mounting.gap - math.dist(near, at)
            if short > NOISE:
                text = f"the {wheel.words} comes too near to the {name}: {_mm(short)} more is wanted"
                yield Clash("clash", text, wheel.path, short, near)


def nearest_on(start: Point, end: Point, at: Point) -> Point:
    """The place on a line from start to end that is nearest to another place."""
    dx, dy = end[0] - start[0], end[1] - start[1]
    length = dx * dx + dy * dy
    share = min(1.0, max(0.0, ((at[0] - start[0]) * dx + (at[1] - start[1]) * dy) / length)) if length else 0.0
    return start[0] + share * dx, start[1] + share * dy


def _runs(setup: Setup) -> Iterator[Clash]:
    """The runs of a loop clear the shafts between them and the lines of the frame."""
    for tie in setup.plane.ties:
        if not tie.is_loop or setup.distance(tie) <= tie.free:
            continue
        keep = tie.driver.outer_radius - tie.driver.pitch_radius + setup.mounting.gap
        for run in straight_runs(setup, tie):
            for path in setup.plane.shafts:
                if path not in tie.shafts:
                    at = setup.at(path)
                    wanted = keep + 0.5 * (setup.shaft(path).diameter or 0.0)
                    yield from _run_into(tie, wanted, nearest_on(*run, at), at, setup.plane.named(path))
            for line in setup.mounting.frame:
                near, on_line = closest(run, (line.start, line.end))
                yield from _run_into(tie, keep, near, on_line, line.name or "frame")


def _run_into(tie: Tie, wanted: float, near: Point, other: Point, name: str) -> Iterator[Clash]:
    short = wanted - math.dist(near, other)
    if short > NOISE:
        text = f"the {_word(tie)} runs into the {name}: {_mm(short)} more is wanted"
        yield Clash("clash", text, tie.path, short, near)


def closest(one: tuple[Point, Point], other: tuple[Point, Point]) -> tuple[Point, Point]:
    """The places of two straight lines, given by their ends, that are nearest to each other: on the one, on the other.

    Where they cross that is one place; else an end of one of them is nearest.
    """
    crossing = _crossing(one, other)
    if crossing is not None:
        return crossing, crossing
    pairs_ = [(end, nearest_on(*other, end)) for end in one] + [(nearest_on(*one, end), end) for end in other]
    return min(pairs_, key=lambda pair: math.dist(*pair))


def _crossing(one: tuple[Point, Point], other: tuple[Point, Point]) -> Point | None:
    (ax, ay), (bx, by) = one
    (cx, cy), (dx, dy) = other
    across = (bx - ax) * (dy - cy) - (by - ay) * (dx - cx)
    if across == 0.0:
        return None
    s = ((cx - ax) * (dy - cy) - (cy - ay) * (dx - cx)) / across
    t = ((cx - ax) * (by - ay) - (cy - ay) * (bx - ax)) / across
    return (ax + s * (bx - ax), ay + s * (by - ay)) if 0.0 <= s <= 1.0 and 0.0 <= t <= 1.0 else None


def straight_runs(setup: Setup, tie: Tie) -> list[tuple[Point, Point]]:
    """The two free runs of an open loop without a tensioner, as their ends."""
    one, other = setup.at(tie.driver.shaft), setup.at(tie.driven.shaft)
    r1, r2 = tie.driver.pitch_radius, tie.driven.pitch_radius
    towards = math.atan2(other[1] - one[1], other[0] - one[0])
    half = 0.5 * math.pi + loops.lean(r1, r2, math.dist(one, other))
    found = []
    for angle in (towards + half, towards - half):
        cosine, sine = math.cos(angle), math.sin(angle)
        found.append(
            ((one[0] + r1 * cosine, one[1] + r1 * sine), (other[0] + r2 * cosine, other[1] + r2 * sine))
        )  # fmt: skip
    return found


def _ground(setup: Setup) -> Iterator[Clash]:
    """Wheels of the line clear the ground; the tyre is pressed together as much as its rolling diameter says."""
    ground = setup.ground
    if ground is None:
        return
    for wheel in setup.plane.wheels:
        at = setup.at(wheel.shaft)
        left = at[1] - wheel.outer_radius - ground
        short = setup.mounting.ground_gap - left
        if short > NOISE:
            text = f"the {wheel.words} leaves {_mm(left)} to the ground, {_mm(setup.mounting.ground_gap)} is wanted"
            yield Clash("clash", text, wheel.path, short, (at[0], ground))


def _bores(setup: Setup) -> Iterator[Clash]:
    """Of the parts at hand one goes on the shaft, or something would make it."""
    for wheel in setup.plane.wheels:
        shaft = setup.shaft(wheel.shaft)
        found = setup.hand.bores.get(wheel.key, ())
        if shaft.diameter is None or not found:
            continue
        seats = [seat(bore, shape, shaft.diameter, shaft.shape) for bore, shape in found]
        order = ("fits", "sleeve", "adapter", "bore out")
        best = min(seats, key=lambda s: order.index(s.answer))
        if best.answer != "fits":
            at_hand = ", which is at hand" if _has(setup.hand, best, shaft) else ""
            text = f"{wheel.words} on the {setup.plane.named(wheel.shaft)}: {best.words}{at_hand}"
            yield Clash("mind", text, wheel.path, 0.0, setup.at(wheel.shaft))


def _has(hand: AtHand, wanted: Seat, shaft: Shaft) -> bool:
    """Whether the sleeve or adapter that would make it is in the bin."""

    def same(one: float, other: float) -> bool:
        return abs(one - other) <= SAME

    across = shaft.diameter or 0.0
    if wanted.answer == "sleeve":
        return any(same(inside, across) and same(outside, wanted.size) for inside, outside in hand.sleeves)
    return wanted.answer == "adapter" and any(
        same(inside, across) and shape == shaft.shape and same(outside, wanted.size)
        for inside, shape, outside, _ in hand.adapters
    )


def _widths(setup: Setup) -> Iterator[Clash]:
    """A belt is no wider than its pulleys, as far as the bin knows them."""
    for tie in setup.plane.ties:
        wide: float | None = getattr(stage_at(setup.design, tie.path), "width", None)
        if not tie.is_loop or wide is None:
            continue
        for wheel in tie.wheels:
            has = setup.hand.widths.get(wheel.key)
            if has is not None and wide > has + TOUCH:
                text = f"the {_word(tie)} is {_mm(wide)} wide, the {wheel.words} of the bin {_mm(has)}"
                yield Clash("mind", text, tie.path, wide - has, setup.at(wheel.shaft))


def _neighbours(setup: Setup) -> Iterator[Clash]:
    """In the same depth, as stacks say, a loop clears other wheels and other loops."""
    looped = [tie for tie in setup.plane.ties if tie.is_loop and setup.distance(tie) > tie.free]
    for tie in looped:
        keep = tie.driver.outer_radius - tie.driver.pitch_radius + setup.mounting.gap
        for wheel in setup.plane.wheels:
            if wheel.path != tie.path and _same_depth(setup.mounting, tie.driver, wheel):
                for run in straight_runs(setup, tie):
                    at = setup.at(wheel.shaft)
                    yield from _run_into(tie, keep + wheel.outer_radius, nearest_on(*run, at), at, wheel.words)
    for one, other in combinations(looped, 2):
        if _same_depth(setup.mounting, one.driver, other.driver):
            keep = setup.mounting.gap + sum(w.outer_radius - w.pitch_radius for w in (one.driver, other.driver))
            for run, beside in product(straight_runs(setup, one), straight_runs(setup, other)):
                yield from _run_into(one, keep, *closest(run, beside), _word(other))


CHECKS: tuple[Callable[[Setup], Iterator[Clash]], ...] = (
    _strangers, _on_the_plate, _distances, _slots, _tensioned, _wraps, _wheels_and_shafts, _frame, _runs, _ground,
    _neighbours, _widths, _bores,
)  # fmt: skip
