"""Places of a design in words, as the parts list and the steps name them."""

from __future__ import annotations

from collections.abc import Sequence

from ydrometer.build.workshop import BuildShop

MOST_NAMED = 3
_WHOLE = {
    "drive.supply": "supply",
    "fit.plate": "plate",
    "vehicle.wheel_diameter": "wheels on the ground",
    "build.locking": "all screws",
}


ON_SHAFTS = ("bearing", "shaft", "spacer", "key", "collar", "eccentric bush")
"""Kinds of things that belong to the shaft of a path, not to the stage that turns it."""


def place_words(shop: BuildShop, path: str, kind: str = "") -> str:
    """Where something goes, in words.

    Args:
        shop: of the design.
        path: a wheel as stacks name it, a stage, a shaft, a source, or a section.
        kind: of what goes there.
    """
    for wheel in shop.line.wheels:
        if wheel.name == path:
            return f"on the {shop.shaft(wheel.shaft)}"
    if kind in ON_SHAFTS and path in shop.line.shafts:
        return shop.shaft(path)
    for between in shop.line.stages:
        if between.path == path:
            return f"{between.stage.noun} {between.stage.sizes_words}"
    if path in shop.line.shafts:
        return shop.line.shafts[path]
    return _WHOLE.get(path, path.rpartition(".")[2].partition("[")[0].replace("_", " "))


def places_words(shop: BuildShop, paths: Sequence[str], kind: str = "") -> str:
    """Several places, each once; many are counted."""
    words = list(dict.fromkeys(place_words(shop, path, kind) for path in paths))
    return "; ".join(words) if len(words) <= MOST_NAMED else f"{words[0]}; and {len(words) - 1} more places"
