"""The steps of a build on paper: boxes to tick, drawings and numbers, for a bench without a screen; and the order list.

Written in chapters, so that whoever waits sees how far it is.
"""

from __future__ import annotations

import html
from base64 import b64encode
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from itertools import groupby
from pathlib import Path
from typing import TYPE_CHECKING, Any

from ydrometer.build.step import SIGNED
from ydrometer.drawing.shapes import LineDrawing
from ydrometer.files.sheets.mini_line import mini_line
from ydrometer.screens.build_shown import BuildShown, StepShown
from ydrometer.screens.parts_shown import PartLine, PartsShown

if TYPE_CHECKING:
    from weasyprint.document import Page
    from weasyprint.text.fonts import FontConfiguration

MOST_PHOTOS = 3
"""Of a step, on paper."""
MOST_IN_CHAPTER = 14
"""Steps: a chapter of so many takes about half a second."""

STYLE = """
@page { size: A4; margin: 16mm 15mm 18mm;
  @bottom-left { content: string(vehicle); font: 8.5pt Bench, sans-serif; color: #55666A }
  @bottom-right { content: string(chapter) ", page " counter(page);
    font: 8.5pt Bench, sans-serif; color: #55666A } }
body { font-family: Bench, sans-serif; font-size: 10.5pt; line-height: 1.32; color: #1B292C; margin: 0 }
.vehicle { string-set: vehicle content(); position: absolute; visibility: hidden }
h1 { font-size: 22pt; margin: 0 0 3mm } h2 { font-size: 15pt; margin: 0 0 3mm; string-set: chapter content() }
.step { border-top: 0.5pt solid #D3DAD4; padding: 2.4mm 0; break-inside: avoid; overflow: hidden }
.box { float: left; width: 6mm; height: 6mm; border: 1.2pt solid #1B292C; border-radius: 1pt; margin-top: 0.6mm;
  font-size: 15pt; line-height: 6mm; text-align: center }
.title { font-size: 12.5pt; font-weight: 700; line-height: 1.25 } .why, .more { color: #55666A }
.caution { border-left: 2.4pt solid #8A5C0A; padding-left: 2.5mm; margin: 1mm 0 }
.record { margin-top: 1.5mm }
.looks { columns: 2; list-style: square; margin: 1mm 0; padding-left: 5mm }
.line { display: inline-block; width: 32mm; border-bottom: 0.8pt solid #1B292C }
.photos img { max-width: 45mm; max-height: 45mm; margin: 1.5mm 2mm 0 0 }
.words { margin-left: 11mm } .drawing { float: right; margin: 0 0 1mm 4mm }
.figure { font-family: BenchMono, monospace }
table { width: 100%; border-collapse: collapse } th { text-align: left; font-weight: 400; color: #55666A }
td, th { border-top: 0.5pt solid #D3DAD4; padding: 1.2mm 3mm 1.2mm 0; vertical-align: top }
td.number, th.number { text-align: right; font-family: BenchMono, monospace }
"""
FACES = (("Bench", "next", "400 700"), ("BenchMono", "mono", "400 700"))
FILE = "atkinson-hyperlegible-{}-latin-wght-normal*.woff2"


@dataclass(frozen=True, slots=True)
class Content:
    """What the booklet shows: the vehicle's name, what the stations show, its line in one row, and what gives a photo
    as a small JPEG by its id, empty where it is gone.
    """

    name: str
    build: BuildShown
    parts: PartsShown
    line: LineDrawing
    photo: Callable[[str], bytes] = lambda photo: b""


def booklet(content: Content, fonts: Path, said: Callable[[int, int], None] = lambda done, of: None) -> bytes:
    """The booklet as PDF.

    Args:
        content: of it.
        fonts: folder with the faces that ship with the page; without them common ones are taken.
        said: is told after each chapter how many of how many are done.
    """
    from weasyprint import CSS, HTML  # noqa: PLC0415  # a second that nothing else needs
    from weasyprint.text.fonts import FontConfiguration  # noqa: PLC0415

    config: FontConfiguration = FontConfiguration()
    style = CSS(string=faces(fonts) + STYLE, font_config=config)
    chapters = [_cover(content), *_chapters(content)]
    pages: list[Page] = []
    for number, chapter in enumerate(chapters, 1):
        body = f'<span class="vehicle">{html.escape(content.name)}</span>{chapter}'
        # Chapters are set one by one, and count their pages on from those before.
        counted = CSS(string=f"@page :first {{ counter-increment: page {len(pages) + 1} }}", font_config=config)
        document = HTML(string=body).render(stylesheets=[style, counted], font_config=config)
        pages += document.pages
        said(number, len(chapters))
    pdf: Any = document.copy(pages).write_pdf()
    return bytes(pdf)


def faces(fonts: Path) -> str:
    """Rules for the faces that ship with the page."""
    pages = []
    for name, face, weights in FACES:
        for file in sorted(fonts.glob(FILE.format(face)))[:1]:
            source = f"url('{file.resolve().as_uri()}')"
            pages.append(f"@font-face {{ font-family: {name}; font-weight: {weights}; src: {source} }}")
    return "".join(pages)


def _cover(content: Content) -> str:
    build = content.build
    parts = [f"<h1>{html.escape(content.name)}</h1><h2>Before you begin</h2>"]
    parts.append(f"<p>{build.done} of {len(build.steps)} steps are done.</p>")
    if build.plan is not None:
        parts.append(f"<p><b>{html.escape(build.plan.sentence)}</b></p>")
    if build.loose:
        words = "".join(f"<li>{html.escape(loose.words)}</li>" for loose in build.loose)
        parts.append(f"<p><b>{len(build.loose)} loose:</b></p><ul>{words}</ul>")
    parts.append(mini_line(content.line, lambda path, member: False))
    parts.append(_tools(build))
    parts.append(_orders(content.parts))
    parts.append(_at_hand(content.parts))
    return "".join(parts)


def _orders(parts: PartsShown) -> str:
    """What is still to be bought, with a box for each."""
    open_ = [line for line in parts.lines if line.to_buy and line.state in ("needed", "ordered")]
    if not open_:
        return "<p>All parts are here.</p>"
    heads = '<tr><th></th><th>to get</th><th class="number">number</th><th class="number">price</th><th>days</th></tr>'
    return f"<p><b>Parts</b></p><table>{heads}{''.join(_order(line) for line in open_)}</table>"


def _tools(build: BuildShown) -> str:
    """Every tool that a step left to do wants, once."""
    tools = sorted({tool for step in build.steps if not step.done for tool in step.tools})
    return f"<p><b>Tools</b>: {html.escape(', '.join(tools))}.</p>" if tools else ""


def _at_hand(parts: PartsShown) -> str:
    """What is owned or here already, to be laid out."""
    there = [line for line in parts.lines if line.to_buy < line.number or line.state in ("here", "fitted")]
    if not there:
        return ""
    heads = '<tr><th></th><th>lay out</th><th class="number">number</th><th>from the bin</th></tr>'
    return f"<p><b>At hand</b></p><table>{heads}{''.join(_laid_out(line) for line in there)}</table>"


def _laid_out(line: PartLine) -> str:
    here = line.number if line.state in ("here", "fitted") else line.number - line.to_buy
    box = f'<div class="box">{"✓" if line.state == "fitted" else ""}</div>'
    where = f'<div class="more">{html.escape(line.where)}</div>'
    return (
        f'<tr><td>{box}</td><td>{html.escape(line.words)}{where}</td><td class="number">{here}</td>'
        f"<td>{html.escape(line.name)}</td></tr>"
    )


def _order(line: PartLine) -> str:
    price = "" if line.price is None else f"{line.price:g}"
    box = '<div class="box"></div>'
    where = f'<div class="more">{html.escape(" ".join(filter(None, (line.where, line.which))))}</div>'
    days = "ordered" if line.state == "ordered" else f"{line.lead_days:g}"
    return (
        f'<tr><td>{box}</td><td>{html.escape(line.words)}{where}</td><td class="number">{line.to_buy}</td>'
        f'<td class="number">{price}</td><td>{days}</td></tr>'
    )


def _chapters(content: Content) -> Iterator[str]:
    """Steps by drive unit, a few pages at a time."""
    for unit, group in groupby(content.build.steps, lambda step: step.unit):
        steps = list(group)
        title = f"Unit {unit}" if unit else "The whole vehicle"
        for begin in range(0, len(steps), MOST_IN_CHAPTER):
            more = ", continued" if begin else ""
            body = "".join(_step(step, content) for step in steps[begin : begin + MOST_IN_CHAPTER])
            yield f"<h2>{title}{more}</h2>{body}"


def _step(step: StepShown, content: Content) -> str:
    """One step: a box, what to do in bold, why, what to mind, its tools, its drawing and photos, and a line for what is
    measured.
    """
    parts = [f'<div class="title">{html.escape(step.title)}</div>']
    if step.why:
        parts.append(f'<div class="why">{html.escape(step.why)}</div>')
    clashing = [f"{reason.words[0].upper()}{reason.words[1:]}." for reason in step.held if not reason.step]
    parts += [f'<div class="caution">{html.escape(words)}</div>' for words in (*clashing, *step.cautions)]
    if step.once_more:
        parts.append(f'<div class="caution">{html.escape(step.once_more)}: once more.</div>')
    if step.looks:
        looks = "".join(f"<li>{html.escape(look.words)}</li>" for look in step.looks)
        about = "Done all the same, with a reason:" if step.kind == SIGNED else "Look again at:"
        parts.append(f'<div class="more">{about}</div><ul class="looks">{looks}</ul>')
    if step.opens:
        loose = "; ".join(entry.words for entry in step.opens)
        parts.append(f'<div class="more">Leaves loose: {html.escape(loose)}.</div>')
    if step.tools:
        parts.append(f'<div class="more">Tools: {html.escape(", ".join(step.tools))}.</div>')
    parts.append(_record(step))
    parts.append(_photos(step, content))
    drawing = _drawing(step, content.line)
    box = f'<div class="box">{"✓" if step.done and not step.once_more else ""}</div>'
    return f'<div class="step">{box}{drawing}<div class="words">{"".join(parts)}</div></div>'


def _drawing(step: StepShown, line: LineDrawing) -> str:
    """The line with what the step handles; nothing of a step that handles none of it."""
    marks = {(mark.path, mark.member) for mark in step.marks}
    if not marks:
        return ""
    return f'<div class="drawing">{mini_line(line, lambda path, member: (path, member) in marks)}</div>'


def _photos(step: StepShown, content: Content) -> str:
    """The newest photos of a step."""
    pictures = [content.photo(photo) for photo in step.photos[-MOST_PHOTOS:]]
    shown = "".join(f'<img src="data:image/jpeg;base64,{b64encode(jpeg).decode()}">' for jpeg in pictures if jpeg)
    return f'<div class="photos">{shown}</div>' if shown else ""


def _record(step: StepShown) -> str:
    lines = []
    if step.what:
        value = html.escape(step.value) if step.value else '<span class="line">&nbsp;</span>'
        lines.append(f'{html.escape(step.what)}: <span class="figure">{value} {html.escape(step.measured_in)}</span>')
    lines.append(f'<span class="more">about {step.minutes:.0f} min</span>')
    if step.wait:
        lines.append(f"<b>then wait {step.wait / 3600.0:g} h</b>")
    return f'<div class="record">{"; ".join(lines)}</div>'
