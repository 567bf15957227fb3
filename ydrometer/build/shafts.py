"""Shafts and what sits on them: the stack in its order, collars left loose, end play before and after lining up."""

from __future__ import annotations

from collections.abc import Iterator

from ydrometer.build import bearings
from ydrometer.build.line import Sitting
from ydrometer.build.safe import SPRINGS
from ydrometer.build.workshop import BuildShop, kinds
from ydrometer.document.mounting import ShaftMount
from ydrometer.document.stages.assembly import Fitting, Job, Record, mm
from ydrometer.document.stages.plane import Loop

END_PLAY = (0.1, 0.3)
"""mm."""
COLLARS = 2
"""Of a shaft, one at each side."""


def jobs(shop: BuildShop) -> Iterator[Job]:
    """The jobs of every shaft that no motor and no box brings along.

    Args:
        shop: of the design.
    """
    for path in shop.line.shafts:
        alone = shop.put_on_alone(path)
        if path in shop.line.sources:
            yield from (_on_motor(shop, path, alone) if alone else ())
        elif path in shop.line.hidden:
            yield from (_on_output(shop, path, alone) if alone else ())
        else:
            yield from _shaft(shop, path, shop.line.on(path))


def put_on(shop: BuildShop, shaft: str) -> str:
    """Id of the job after which the wheels of a shaft are on it; empty where it has none."""
    bare = shaft in shop.line.sources or shaft in shop.line.hidden
    return f"{shaft}:wheel" if bare and shop.put_on_alone(shaft) else "" if bare else f"{shaft}:stack"


def standing(shop: BuildShop, shaft: str) -> str:
    """Id of the job after which a shaft stands, with nothing left to slide along it."""
    if shaft in shop.line.sources:
        return f"{shaft}:mount"
    return f"{shaft}:tighten" if shaft in shop.line.hidden else f"{shaft}:end_play"


def _shaft(shop: BuildShop, path: str, wheels: list[Sitting]) -> Iterator[Job]:
    said, name = shop.mount(path), shop.shaft(path)
    names = tuple(wheel.name for wheel in wheels)
    on = _listed([wheel.words for wheel in wheels])
    across = f"{mm(said.diameter)} " if said.diameter else ""
    if wheels:
        goes = "it goes" if len(wheels) == 1 else "each goes"
        yield Job(
            place=path,
            verb="try",
            kind="shaft",
            minutes=10,
            parts=(path, *names),
            uses=("shaft", *kinds(wheels)),
            tools=("caliper",),
            title=f"Try the {on} on the {across}{name}: {goes} on by hand and does not rock",
            why="A bore that nobody measured stops the evening.",
        )
    yield from bearings.jobs(shop, path)
    yield _stack(shop, path)
    yield from _end_play(shop, path, wheels)


def _stack(shop: BuildShop, path: str) -> Job:
    """All that sits on a shaft, loose; but for wheels that go on with their belt."""
    said, name, alone = shop.mount(path), shop.shaft(path), shop.put_on_alone(path)
    later = {wheel.name: wheel.words for wheel in shop.line.on(path) if wheel not in alone}
    on = _listed([wheel.words for wheel in alone])
    content = shop.in_order(path, later) or on or "its bearings and collars"
    whys = [_around(shop, path)] if not later else [_opened_later(list(later.values()))]
    return Job(
        place=path,
        verb="stack",
        kind="shaft",
        minutes=20,
        parts=(path, *(wheel.name for wheel in alone)),
        uses=("shaft", "spacer", *kinds(alone)),
        fittings=(Fitting("collar", f"collar{_on(said)}", COLLARS, {"bore": said.diameter} if said.diameter else {}),),
        tools=("hex keys", "caliper"),
        title=f"Put together on the {name}: {content}; all left loose",
        why=" ".join(filter(None, whys)),
        after=(f"{path}:try", f"{path}:{bearings.LAST}", f"{path}:bearings"),
        opens=(*(shop.fastening(wheel.name) for wheel in alone), shop.collars(path)),
    )


def _opened_later(words: list[str]) -> str:
    return f"The {_listed(words)} goes on later, together with its belt: whatever closes the shaft in waits for that."


def _end_play(shop: BuildShop, path: str, wheels: list[Sitting]) -> Iterator[Job]:
    """Set before wheels are brought in line on the shaft, and looked at again when they are."""
    name, names = shop.shaft(path), tuple(wheel.name for wheel in wheels)
    play = f"{END_PLAY[0]:g} to {END_PLAY[1]:g} mm of end play"
    shut_in = (f"{between.path}:walk_on" for between in shop.line.at(path) if shop.shut_in(between))
    yield Job(
        place=path,
        verb="end_play",
        kind="shaft",
        minutes=10,
        parts=(path, *names),
        tools=("feeler gauge", "hex keys"),
        title=f"Set the collars of the {name}: {play}, then tighten them and turn it by hand",
        why="Without any, bearings run hot; with much, wheels wander out of line.",
        after=(f"{path}:stack", *shut_in),
        closes=(shop.collars(path).id,),
        record=Record("end play", "mm", right=END_PLAY),
    )
    if not wheels:
        return
    set_ = (f"{between.path}:{verb}" for between in shop.line.at(path) for verb in ("line_up", "tighten"))
    yield Job(
        place=path,
        verb="end_play_again",
        kind="shaft",
        minutes=5,
        parts=(path, *names),
        tools=("feeler gauge",),
        title=f"Look at the end play of the {name} again, now that all on it is tight: {play}",
        why="A hub that was pulled up against a bearing takes it.",
        after=(f"{path}:end_play", *set_),
        record=Record("end play", "mm", right=END_PLAY),
    )


def _edged(shape: str) -> str:
    """The shape of a shaft that is not round for what clamps on it."""
    return f" {shape}" if shape in ("hexagon", "square") else ""


def _on(said: ShaftMount) -> str:
    return f" on {mm(said.diameter)}{_edged(said.shape)}" if said.diameter else ""


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
        uses=kinds(wheels),
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
        uses=kinds(wheels),
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
        uses=kinds(wheels),
        title=f"Put the {on} on the {shop.shaft(path)}, with its key or over the flat; loose until it is in line",
        after=(f"{path}:tighten", f"{path}:line_up"),
        tools=("hex keys",),
        opens=tuple(shop.fastening(wheel.name) for wheel in wheels),
    )


def _listed(words: list[str]) -> str:
    """Each once: "56-tooth gear and the 18-tooth pulley"."""
    return " and the ".join(dict.fromkeys(words))
