"""A design on one page: for the pit wall, for inspection, for a judge."""

from __future__ import annotations

import html
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any, Literal

from ydrometer.base import units
from ydrometer.base.tables.dimensions import DIMENSIONS
from ydrometer.base.tables.measures import MEASURES, TARGETABLE
from ydrometer.build.needs import needs
from ydrometer.build.workshop import workshop
from ydrometer.document import design, names
from ydrometer.document.design import Design, Document
from ydrometer.document.target import Target
from ydrometer.document.walk import stages_with_paths
from ydrometer.drawing import draw_line
from ydrometer.evaluation.driveline import overall_ratios
from ydrometer.evaluation.evaluate import Evaluation, evaluate
from ydrometer.evaluation.ratios import RatioView, ratio_views
from ydrometer.evaluation.readout import shown_targets
from ydrometer.evaluation.targets import Standing
from ydrometer.files.booklet import faces
from ydrometer.files.sheets.mini_line import mini_line
from ydrometer.screens.gauge_bands import uncertainties

System = Literal["metric", "inch"]
DRAWING = (500.0, 150.0)
"""Room of the drawing, points."""
MOST_GUESSES, MOST_PARTS = 12, 24
"""Lines for which the page has room."""
SIZES = (9.5, 8.5, 7.5)
"""Of letters, points."""
MARKS: dict[Standing, str] = {"holds": "●", "tight": "◐", "misses": "△", "unknown": "◌"}
STYLE = """
@page { size: A4; margin: 13mm 15mm 13mm;
  @bottom-left { content: string(foot); font: 8pt Bench, sans-serif; color: #55666A } }
body { font-family: Bench, sans-serif; line-height: 1.3; color: #1B292C; margin: 0 }
.foot { string-set: foot content(); position: absolute; visibility: hidden }
h1 { font-size: 22pt; margin: 0 } h2 { font-size: 11pt; margin: 3.5mm 0 0.5mm } .quiet { color: #55666A }
.sides { columns: 2; column-gap: 8mm } .sides > div { break-inside: avoid }
.overall { font-size: 17pt; font-weight: 700; font-family: BenchMono, monospace }
table { width: 100%; border-collapse: collapse }
td, th { border-top: 0.5pt solid #D3DAD4; padding: 0.7mm 2mm 0.7mm 0; text-align: left; font-weight: 400 }
td.number { text-align: right; font-family: BenchMono, monospace; white-space: nowrap }
td.value { text-align: right; font-family: BenchMono, monospace; font-weight: 700; white-space: nowrap }
"""


@dataclass(frozen=True, slots=True)
class Heading:
    """What stands over and under the sheet besides the design: which revision, its date, and whose workshop."""

    revision: str
    date: str
    workshop: str


def design_sheet(raw: dict[str, Any], heading: Heading, fonts: Path, system: System = "metric") -> bytes:
    """The sheet as PDF: one page, in smaller letters where there is much to say.

    Args:
        raw: a design document.
        heading: revision and date.
        fonts: folder with the faces that ship with the page.
        system: of the units it is written in.

    Raises:
        DocumentError: `raw` has faults.
    """
    from weasyprint import CSS, HTML  # noqa: PLC0415  # a second that nothing else needs
    from weasyprint.text.fonts import FontConfiguration  # noqa: PLC0415

    config: FontConfiguration = FontConfiguration()
    style = CSS(string=faces(fonts) + STYLE, font_config=config)
    content = sheet_html(raw, heading, system)
    for size in SIZES:
        body = HTML(string=f'<body style="font-size: {size}pt">{content}</body>')
        page = body.render(stylesheets=[style], font_config=config)
        if len(page.pages) == 1:
            break
    pdf: Any = page.write_pdf()
    return bytes(pdf)


def sheet_html(raw: dict[str, Any], heading: Heading, system: System = "metric") -> str:
    """The same as it is set: without styles.

    Args:
        raw: a design document.
        heading: revision and date.
        system: of the units it is written in.

    Raises:
        DocumentError: `raw` has faults.
    """
    document = design.read(raw)
    its_design = document.design
    evaluation = evaluate([document])
    name = html.escape(its_design.name or "Unnamed vehicle")
    dated = html.escape(", ".join(part for part in (heading.workshop, heading.revision, heading.date) if part))
    return "".join(
        (
            f'<span class="foot">{name}, {dated}. Worked out by Ydrometer from the values given; it does not say that '
            "the vehicle is safe.</span>",
            f'<h1>{name}</h1><div class="quiet">{dated}</div>',
            f'<div class="quiet">{html.escape(its_design.notes)}</div>' if its_design.notes else "",
            mini_line(draw_line(its_design), lambda path, member: False, DRAWING),
            f'<div class="overall">{_overall(its_design)}</div>',
            '<div class="sides">',
            _table("Reductions", _stages(document, ratio_views(its_design))),
            _table("What it does", _measures(evaluation, system)),
            _table("The vehicle", _vehicle(document, system)),
            _table("Assumed, not measured", _guesses(document, raw, system)),
            _table("Parts", _parts(document)),
            "</div>",
        )
    )


def _overall(its_design: Design) -> str:
    """The reduction of each branch, of a box of several speeds in each gear: "32.5 / 19.3 / 12.2 : 1"."""
    gears: dict[int, list[str]] = {}
    for branch, _, ratio in overall_ratios(its_design):
        gears.setdefault(branch, []).append(units.digits(ratio))
    return " and ".join(f"{' / '.join(each)} : 1" for each in gears.values())


def _table(title: str, rows: Iterator[str]) -> str:
    body = "".join(rows)
    return f"<div><h2>{title}</h2><table>{body}</table></div>" if body else ""


def _row(*cells: str, last: str = "number") -> str:
    *head, end = (html.escape(cell) for cell in cells)
    return f'<tr>{"".join(f"<td>{cell}</td>" for cell in head)}<td class="{last}">{end}</td></tr>'


def _stages(document: Document, views: Sequence[RatioView]) -> Iterator[str]:
    ratios = {view.path: view.ratio for view in views}
    for path, stage in stages_with_paths(document.design):
        yield _row(f"{stage.noun} {stage.sizes_words}", f"{units.digits(ratios[path])} : 1")


def _measures(evaluation: Evaluation, system: System) -> Iterator[str]:
    for number, target in shown_targets(evaluation.documents[0].design):
        verdict = evaluation.judge(target, 0).verdict
        mark = MARKS[verdict.standing] if number is not None else ""
        value = _shown(verdict.value, TARGETABLE[target.measure].dimension, system)
        words = f"{mark} {_measure_words(target, evaluation, system)}".strip()
        yield _row(words, target.wanted if number is not None else "", value, last="value")


def _measure_words(target: Target, evaluation: Evaluation, system: System) -> str:
    """ "time over the distance, 25 m"."""
    name = names.measure_name(target.measure)
    at = target.about(evaluation.documents[0].design.run)
    key = MEASURES[target.measure].run if target.measure in MEASURES else ""
    return name if at is None or not key else f"{name}, {_shown(at, key, system)}"


def _vehicle(document: Document, system: System) -> Iterator[str]:
    vehicle = document.design.vehicle
    for words, value, dimension in (
        ("mass, all of it", vehicle.total_mass, "mass"),
        ("rolling diameter", vehicle.wheel_diameter, "length"),
        ("rolling resistance", vehicle.rolling_resistance, "ratio"),
        ("grip", vehicle.grip, "ratio"),
    ):
        yield _row(words, _shown(value, dimension, system))


def _guesses(document: Document, raw: dict[str, Any], system: System) -> Iterator[str]:
    for guess in uncertainties(raw, assumed=True).guesses[:MOST_GUESSES]:
        value = document.values[guess.path]
        note = guess.note.partition(":")[0]
        yield _row(f"{guess.name}, {note}" if note else guess.name, _shown(value.si, value.dimension, system))


def _parts(document: Document) -> Iterator[str]:
    for need in needs(workshop(document))[:MOST_PARTS]:
        yield _row(need.words, f"{need.number:g}")


def _shown(si: float | None, dimension: str, system: System) -> str:
    """A value in the units of a system, with three significant digits."""
    if si is None:
        return "–"
    unit = getattr(DIMENSIONS[dimension], system)
    factor, offset = units.scale(unit, dimension)
    return f"{units.digits((si - offset) / factor)} {units.symbol(unit)}".strip()
