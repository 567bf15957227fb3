"""The power path as geometry: circles, tangents, paths and turning senses, for the page to paint."""

from ydrometer.drawing.line import UNFOLDED, draw_line
from ydrometer.drawing.shapes import LineDrawing

__all__ = ["UNFOLDED", "LineDrawing", "draw_line"]
