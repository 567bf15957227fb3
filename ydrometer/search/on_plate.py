"""Which options of a search would go on the design's plate, though it was not asked for: a look at a few of them."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ydrometer.base.errors import DocumentError
from ydrometer.fit.setting_up import set_up
from ydrometer.search.choices import StageSlot
from ydrometer.search.layout import DriveLayout, Mount, PairChoice
from ydrometer.search.mount import Options, pair_places, together
from ydrometer.search.option import Option
from ydrometer.search.plate import on_plate
from ydrometer.search.request import SearchRequest
from ydrometer.search.room import outer_radius


class OnPlate:
    """The plate of a request's design, as its layouts would use it."""

    def __init__(self, request: SearchRequest, layouts: Sequence[list[StageSlot]]) -> None:
        """Read where shafts may stand.

        Args:
            request: what was searched for.
            layouts: the options of the stages of each layout.
        """
        self._request, self._layouts = request, layouts
        self._mounts = _mounts(request)
        self._known: dict[tuple[int, tuple[int, ...]], bool] = {}

    def goes(self, option: Option) -> bool:
        """Whether there are holes for all its pairs at once; also true where nothing is known of a plate."""
        key = option.layout, option.chosen
        if key not in self._known:
            self._known[key] = self._has_places(option)
        return self._known[key]

    def _has_places(self, option: Option) -> bool:
        mount = self._mounts[option.layout]
        if mount is None:
            return True
        pairs = [
            (slot, chosen)
            for slot, chosen in zip(self._layouts[option.layout], option.chosen, strict=True)
            if isinstance(slot.choice, PairChoice)
        ]
        placed = [
            pair_places(mount, number, slot.choice, self._alone(slot, chosen))
            for number, (slot, chosen) in enumerate(pairs)
        ]
        if not all(places.alone[0] for places in placed):
            return False
        all_at_once = together(placed, [np.zeros(1, np.int64)] * len(placed))
        return all_at_once is None or bool(all_at_once[0])

    def _alone(self, slot: StageSlot, chosen: int) -> Options:
        """One option of a pair, as if there were no other."""
        driver, driven = (self._request.body.parts[place] for place in slot.parts[chosen].tolist())
        columns = driver.tooth_size, driver.measure, driven.measure, outer_radius(driver), outer_radius(driven)
        return Options(*(np.array([column], float) for column in columns))


def _mounts(request: SearchRequest) -> list[Mount | None]:
    """Where the shafts of each layout may stand; None where that was asked of the search itself, or is not known."""
    nothing: list[Mount | None] = [None] * len(request.body.layouts)
    fit = request.document.design.fit
    if fit is None or fit.plate is None:
        return nothing
    try:
        kinds, mount = on_plate(set_up(request.document.design))
    except DocumentError:
        return nothing
    return [mount if layout.mount is None and _pairs(layout) == kinds else None for layout in request.body.layouts]


def _pairs(layout: DriveLayout) -> list[str]:
    return [choice.kind for choice in layout.stages if isinstance(choice, PairChoice)]
