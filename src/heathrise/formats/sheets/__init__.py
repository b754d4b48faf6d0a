"""Sheets to scale, as SVG: drawn with the same pens and marks as on the screen."""

from .diagram import diagram_legend, draw_diagram, fitted, on_pages
from .land import draw_land, has_land, land_legend
from .marks import pen_of
from .page import PAGE_SCALES, PAPERS, Page, Title, legend_of, pages_of, room_on, whole_page
from .sheet import SCALES, Layer, Sheet, bounds, draw_sheet

__all__ = [
    "PAGE_SCALES",
    "PAPERS",
    "SCALES",
    "Layer",
    "Page",
    "Sheet",
    "Title",
    "bounds",
    "diagram_legend",
    "draw_diagram",
    "draw_land",
    "draw_sheet",
    "fitted",
    "has_land",
    "land_legend",
    "legend_of",
    "on_pages",
    "pages_of",
    "pen_of",
    "room_on",
    "whole_page",
]
