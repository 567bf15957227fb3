"""What whoever builds has before them: the design, its line, Fit's numbers, and what each loose thing is called."""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise

from ydrometer.build.line import Between, Line, Sitting, line
from ydrometer.build.safe import fingers
from ydrometer.document.building import Building
from ydrometer.document.design import Design, Document
from ydrometer.document.mounting import Mounting, ShaftMount
from ydrometer.document.sources import Source
from ydrometer.document.stages.assembly import Hands, Loose, mm
from ydrometer.document.stages.plane import Loop
from ydrometer.document.supply import Fuse
from ydrometer.document.walk import branch_of, on_drum
from ydrometer.fit.screws import covered
from ydrometer.fit.sections import sections
from ydrometer.fit.setting_up import set_ups
from ydrometer.fit.settings import settings
from ydrometer.fit.setup import Setup
from ydrometer.fit.stock import NOTHING

END_GAP = 3e-4
"""m; what is no wider is end play, not a gap."""


@dataclass(frozen=True, slots=True)
class BuildShop:
    """A design with all that its jobs ask of it.

    Attributes:
        document: as read. line: of one drive unit. plates: the design on each of its plates.
        settings: Fit's numbers by name, SI, by the path of the stage. ways: the builder's schools.
    """

    document: Document
    line: Line
    plates: Sequence[Setup]
    settings: Mapping[str, Mapping[str, float]]
    ways: Building

    @property
    def design(self) -> Design:
        """The design itself."""
        return self.document.design

    @property
    def fit(self) -> Mounting:
        """Its `fit` section, empty where it has none."""
        return self.design.fit or Mounting()

    @property
    def fingers(self) -> str:
        """The caution wherever something can be turned."""
        return fingers(self.design)

    @property
    def volts(self) -> float | None:
        """Of the supply with nothing drawn; None without one."""
        supply = self.design.drive.supply
        return getattr(supply, "voltage", None) or getattr(supply, "open_circuit_voltage", None)

    @property
    def fuse(self) -> Fuse | None:
        """That the supply has, where somebody has said so."""
        return getattr(self.design.drive.supply, "fuse", None)

    def loop_length(self, between: Between) -> float | None:
        """Of a belt or chain, m, by its stage or by what is said of it; None where nobody knows."""
        said = self.fit.loop(between.path)
        return between.stage.loop_length or (said.length if said else None)

    def in_order(self, shaft: str, without: Collection[str] = ()) -> str:
        """What is on a shaft, from the first face; empty where nothing says so.

        Args:
            shaft: its path.
            without: names of wheels that come later.

        Returns:
            Each thing with its width, and a spacer where there is a gap.
        """
        said = self.mount(shaft)
        if said.stack is None:
            return ""
        gaps = spacers_wanted(said)
        named = [("", 0.0) if item.wheel in without else (item.name or "item", item.width) for item in said.stack.items]
        row = [entry for place, gap in enumerate(gaps) for entry in (("spacer", gap), *named[place : place + 1])]
        return ", ".join(f"{name} {mm(width)}" for name, width in row if width)

    def mount(self, shaft: str) -> ShaftMount:
        """How a shaft is mounted: free where nothing is said of it."""
        return self.said(shaft) or ShaftMount(shaft=shaft, mount="free")

    def said(self, shaft: str) -> ShaftMount | None:
        """What is said of a shaft's mounting, of a further motor of a branch what is said of the first; None where
        nothing is.
        """
        first = shaft.partition("source[")[0] + "source" if "source[" in shaft else shaft
        return self.fit.of(shaft) or self.fit.of(first)

    def shaft(self, path: str) -> str:
        """A shaft in words, as it stands in a sentence."""
        words = self.line.shafts[path]
        return f"{words} shaft" if path in self.line.sources else words

    def source(self, path: str) -> Source:
        """The motor or engine at a path."""
        return self.design.drive.branches[branch_of(path)].source

    def named(self, source: str) -> str:
        """A motor or engine as it stands in a sentence; several that share one name together."""
        each = self.line.sources[source]
        words = self.line.shafts[source]
        return f"each of the {each} motors" if each > 1 else words if words[-1].isdigit() else f"the {words}"

    def on_drum(self, shaft: str) -> bool:
        """Whether what sits on an engine's shaft sits on the drum of its clutch, which turns without the engine."""
        return on_drum(self.design, shaft)

    def screws(self, shaft: str) -> float | None:
        """How long the screws of a shaft's mount are, m, once those too long are cut; None where nobody says."""
        bolts, plate = self.mount(shaft).bolts, self.fit.plate
        if bolts is None or bolts.length is None:
            return None
        if bolts.depth is None or plate is None or plate.thickness is None:
            return bolts.length
        return min(bolts.length, plate.thickness + bolts.depth)

    def fastening(self, wheel: str) -> Loose:
        """What holds a wheel on its shaft, by the wheel's name."""
        words = next(sitting.words for sitting in self.line.wheels if sitting.name == wheel)
        return Loose(f"{wheel}:fastening", f"fastening of the {words}")

    def bolts(self, shaft: str) -> Loose:
        """What holds a shaft on its mount."""
        if shaft in self.line.sources:
            return Loose(f"{shaft}:bolts", f"{self.line.shafts[shaft]} mount bolts")
        held = "eccentric bushes" if self.mount(shaft).eccentric else "bearing plates"
        return Loose(f"{shaft}:plates", f"{held} of the {self.line.shafts[shaft]}")

    def covered(self, shaft: str) -> str:
        """Wheels that stand over the screws of a shaft's mount, in words; empty where a key reaches them all."""
        plate = next((plate for plate in self.plates if shaft in plate.stands), None)
        wheels = covered(plate, shaft) if plate and self.design.fit else []
        return " and the ".join(dict.fromkeys(wheel.words for wheel in wheels))

    def collars(self, shaft: str) -> Loose:
        """What keeps a shaft from moving along itself."""
        return Loose(f"{shaft}:collars", f"collars of the {self.line.shafts[shaft]}")

    def moved_by(self, shaft: str) -> str:
        """The stage that a shaft is moved for; empty where it stays."""
        return next((path for path, shafts in self.line.moved.items() if shaft in shafts), "")

    def hands(self, between: Between) -> Hands:
        """What is at hand at a stage."""
        path, wheels = between.path, self.line.of(between.path)
        moved = self.line.moved[path]
        return Hands(
            path=path,
            wheels=tuple(dict.fromkeys(wheel.words for wheel in wheels)),
            names=tuple(wheel.name for wheel in wheels),
            kinds=kinds(wheels),
            fastenings=tuple(self.fastening(wheel.name) for wheel in wheels),
            slides=" and ".join(self._slides(shaft) for shaft in moved),
            turned=any(self.mount(shaft).eccentric for shaft in moved),
            mount=tuple(self.bolts(shaft).id for shaft in moved),
            covered=" and the ".join(filter(None, dict.fromkeys(self.covered(shaft) for shaft in moved))),
            through=not set(moved) & set(self.line.sources),
            tensioner=self._tensioned(path),
            shut_in=self.shut_in(between),
            meshes=tuple(self._meshes(between)),
            settings=self.settings.get(path, {}),
            fingers=self.fingers,
            ways=self.ways,
        )

    def _meshes(self, between: Between) -> Iterator[Hands]:
        """The pairs of a row of gears, each as if it were a stage of its own."""
        if not between.idle:
            return
        row = [wheel for wheel in self.line.of(between.path) if wheel.shaft not in between.drivers[1:]]
        for first, second in pairwise(row):
            place = second.shaft if second.shaft in between.idle else between.path
            yield Hands(
                path=place,
                wheels=(first.words, second.words),
                names=(first.name, second.name),
                settings=self.settings.get(place, {}),
                ways=self.ways,
            )

    def _tensioned(self, stage: str) -> bool:
        said = self.fit.loop(stage)
        return said is not None and said.tensioner is not None

    def shut_in(self, between: Between) -> bool:
        """Whether what runs around a stage's wheels goes on together with them alone: it has no ends, and neither can
        the shafts come nearer, all of which are said to stand, nor does a tensioner let go of it.
        """
        lies = between.stage.in_plane
        closed = isinstance(lies, Loop) and not lies.opens
        stand = all(self.said(shaft) and shaft not in self.line.movable for shaft in between.shafts)
        return closed and stand and not self._tensioned(between.path)

    def put_on_alone(self, shaft: str) -> list[Sitting]:
        """The wheels that are put on a shaft by themselves, before what runs around them."""
        later = {between.path for between in self.line.at(shaft) if self.shut_in(between)}
        return [wheel for wheel in self.line.on(shaft) if wheel.stage not in later]

    def _slides(self, shaft: str) -> str:
        return self.named(shaft) if shaft in self.line.sources else f"the {self.bolts(shaft).words}"


def spacers_wanted(said: ShaftMount) -> list[float]:
    """The gaps in what is on a shaft, m: before each item and behind the last, 0 where none is to be filled.

    Args:
        said: of the shaft, with a stack.
    """
    (section,) = sections(Mounting(shafts=(said,)), NOTHING)
    return [gap if gap > END_GAP else 0.0 for gap in section.gaps]


def kinds(wheels: Sequence[Sitting]) -> tuple[str, ...]:
    """What the parts list calls wheels, and what comes between them and their shaft.

    Args:
        wheels: that are put on.
    """
    return (*dict.fromkeys(wheel.kind for wheel in wheels), "key", "sleeve", "adapter")


def plate_path(setup: Setup) -> str:
    """The path of a plate: of the first one its own, of others that of the stage behind which they stand."""
    return setup.plane.behind or "fit.plate"


def workshop(document: Document) -> BuildShop:
    """The workshop of a design.

    Args:
        document: as read, with or without a `fit` section.
    """
    plates = set_ups(document.design)
    known: dict[str, dict[str, float]] = {}
    for entry in (entry for plate in plates for entry in settings(plate)):
        known[entry.path] = {setting.name: setting.value for setting in entry.settings}
    ways = document.design.build or Building()
    return BuildShop(document, line(document.design), plates, known, ways)
