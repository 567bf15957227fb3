"""Shafts and what sits on them: bearings, the stack in its order, collars left loose, end play."""

from __future__ import annotations

from collections.abc import Iterator

from ydrometer.build import plates
from ydrometer.build.line import Sitting
from ydrometer.build.safe import SPRINGS
from ydrometer.build.workshop import BuildShop
from ydrometer.document.stages.assembly import CURE, FUMES, Job, Loose, Record, mm
from ydrometer.document.stages.plane import Loop

END_PLAY = (0.1, 0.3)
"""mm."""


def jobs(shop: BuildShop) -> Iterator[Job]:
    """The jobs of every shaft that no motor and no box brings along.

    Args:
        shop: of the design.
    """
    for path in shop.line.shafts:
        wheels = shop.line.on(path)
        if path in shop.line.sources:
            yield from (_on_motor(shop, path, wheels) if wheels else ())
        elif path in shop.line.hidden:
            yield from (_on_output(shop, path, wheels) if wheels else ())
        else:
            yield from _shaft(shop, path, wheels)


def put_on(shop: BuildShop, shaft: str) -> str:
    """Id of the job after which the wheels of a shaft are on it; empty where it has none."""
    bare = shaft in shop.line.sources or shaft in shop.line.hidden
    return f"{shaft}:wheel" if bare and shop.line.on(shaft) else "" if bare else f"{shaft}:stack"


def _shaft(shop: BuildShop, path: str, wheels: list[Sitting]) -> Iterator[Job]:
    said, name = shop.mount(path), shop.shaft(path)
    names = tuple(wheel.name for wheel in wheels)
    on = _listed([wheel.words for wheel in wheels])
    across = f"{mm(said.diameter)} " if said.diameter else ""
    play = f"{END_PLAY[0]:g} to {END_PLAY[1]:g} mm of end play"
    if wheels:
        goes = "it goes" if len(wheels) == 1 else "each goes"
        yield Job(
            place=path,
            verb="try",
            kind="shaft",
            minutes=10,
            parts=(path, *names),
            tools=("caliper",),
            title=f"Try the {on} on the {across}{name}: {goes} on by hand and does not rock",
            why="A bore that nobody measured stops the evening.",
        )
    yield _bearings(shop, path)
    content = shop.in_order(path) or on or "its bearings and collars"
    yield Job(
        place=path,
        verb="stack",
        kind="shaft",
        minutes=20,
        parts=(path, *names),
        tools=("hex keys", "caliper"),
        title=f"Put together on the {name}: {content}; all left loose",
        why=_around(shop, path),
        after=(f"{path}:try", f"{path}:bearings"),
        opens=_opened(shop, path, wheels),
    )
    yield Job(
        place=path,
        verb="end_play",
        kind="shaft",
        minutes=10,
        parts=(path, *names),
        tools=("feeler gauge", "hex keys"),
        title=f"Set the collars of the {name}: {play}, then tighten them and turn it by hand",
        why="Without any, bearings run hot; with much, wheels wander out of line.",
        after=(f"{path}:stack", *(f"{between.path}:line_up" for between in shop.line.at(path))),
        closes=(shop.collars(path).id,),
        record=Record("end play", "mm", right=END_PLAY),
    )


def _bearings(shop: BuildShop, path: str) -> Job:
    """Bearings that go into a hole of the plate are glued, a day before; others are bolted on."""
    said, name = shop.mount(path), shop.shaft(path)
    if said.opening is None:
        return Job(
            place=path,
            verb="bearings",
            kind="bearing",
            minutes=15,
            parts=(path,),
            after=plates.ready(shop),
            title=f"Mount the bearings of the {name}, and turn it in them by hand",
            tools=("hex keys",),
        )
    return Job(
        place=path,
        verb="bearings",
        kind="bearing",
        minutes=20,
        parts=(path,),
        after=plates.ready(shop),
        title=f"Glue the bearings of the {name} into their {mm(said.opening)} holes: compound on the bearing alone",
        why="What is wiped into the hole runs into the bearing, and so does swarf: no drilling after it.",
        wait=CURE,
        tools=("retaining compound",),
        buries=plates.ready(shop),
        cautions=(FUMES,),
    )


def _opened(shop: BuildShop, path: str, wheels: list[Sitting]) -> tuple[Loose, ...]:
    plates_loose = (shop.bolts(path),) if shop.moved_by(path) else ()
    return (*(shop.fastening(wheel.name) for wheel in wheels), *plates_loose, shop.collars(path))


def _around(shop: BuildShop, path: str) -> str:
    """What has to lie around a shaft before it is closed in."""
    nouns = [between.stage.noun for between in shop.line.at(path) if isinstance(between.stage.in_plane, Loop)]
    if not nouns or shop.mount(path).stack is None:
        return ""
    return f"The {_listed(nouns)} has to lie around it before the second face closes."


def _on_motor(shop: BuildShop, path: str, wheels: list[Sitting]) -> Iterator[Job]:
    on, motor = _listed([wheel.words for wheel in wheels]), shop.line.shafts[path]
    if shop.on_drum(path):
        yield _on_drum(shop, path, wheels)
        return
    key = "with its key" if shop.mount(path).shape in ("keyway", "spline") else "its screw over the flat"
    yield Job(
        place=path,
        verb="wheel",
        kind="motor",
        minutes=15,
        parts=(path, *(wheel.name for wheel in wheels)),
        title=f"Put the {on} on the {motor} shaft, {key}; loose until it is in line",
        why="A screw on the round of a shaft holds until the first hard start.",
        after=(f"{path}:mount",),
        opens=tuple(shop.fastening(wheel.name) for wheel in wheels),
        tools=("hex keys",),
    )


def _on_drum(shop: BuildShop, path: str, wheels: list[Sitting]) -> Job:
    """What an engine drives first turns with the drum: on the engine's own shaft it would turn at idle."""
    on = _listed([wheel.words for wheel in wheels])
    return Job(
        place=path,
        verb="wheel",
        kind="motor",
        minutes=15,
        parts=(path, *(wheel.name for wheel in wheels)),
        title=f"Put the {on} on the drum of the clutch, never on the shaft of the {shop.line.shafts[path]}: it turns "
        "with the drum by hand while the shaft stands still; loose until it is in line",
        why="Its bore is the drum's. On the engine's own shaft it would drive at idle.",
        after=(f"{path}:clutch",),
        opens=tuple(shop.fastening(wheel.name) for wheel in wheels),
        tools=("hex keys",),
        cautions=(SPRINGS,),
    )


def _on_output(shop: BuildShop, path: str, wheels: list[Sitting]) -> Iterator[Job]:
    on = _listed([wheel.words for wheel in wheels])
    yield Job(
        place=path,
        verb="wheel",
        kind="shaft",
        minutes=15,
        parts=(path, *(wheel.name for wheel in wheels)),
        title=f"Put the {on} on the {shop.shaft(path)}, with its key or over the flat; loose until it is in line",
        after=(f"{path}:tighten", f"{path}:line_up"),
        tools=("hex keys",),
        opens=tuple(shop.fastening(wheel.name) for wheel in wheels),
    )


def _listed(words: list[str]) -> str:
    """Each once: "56-tooth gear and the 18-tooth pulley"."""
    return " and the ".join(dict.fromkeys(words))
