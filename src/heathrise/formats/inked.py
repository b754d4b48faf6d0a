"""Ink on a picture of a plan, whatever the light, and how the plan lies on it."""

from __future__ import annotations

import math

import cv2
import numpy as np
from numpy.typing import NDArray

Mask = NDArray[np.uint8]

THINNEST_M, SHORTEST_M = 0.06, 0.35
_OUTLINED_M, _NO_TABLE_M = 0.36, 2.5
_STEP_DEG = 0.5
_TABLE_SHARE = 0.7  # what is so much darker than the paper is not paper
_MOST_INK = 0.35
_RIM_PX = 9  # of the sheet's edge and its shadow, a quarter as fine as the picture


def inked(grey: Mask, m_per_px: float) -> Mask:
    """Return where ink is, 255, whatever the light."""
    side = max(31, round(1.2 / m_per_px) | 1)
    small = cv2.resize(grey, None, fx=0.25, fy=0.25, interpolation=cv2.INTER_AREA)
    kernel = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (max(3, side // 4 | 1), max(3, side // 4 | 1)))
    closed = cv2.morphologyEx(small, cv2.MORPH_CLOSE, kernel)
    paper = np.asarray(cv2.GaussianBlur(closed, (0, 0), max(1.0, side / 12)), dtype=np.uint8)
    light = cv2.resize(paper, (grey.shape[1], grey.shape[0]), interpolation=cv2.INTER_LINEAR)
    even = np.clip(grey.astype(np.float32) / np.maximum(light.astype(np.float32), 1) * 255, 0, 255)
    _, ink = cv2.threshold(even.astype(np.uint8), 0, 255, cv2.THRESH_BINARY_INV | cv2.THRESH_OTSU)
    ink[
        cv2.resize(_beside_sheet(paper), (grey.shape[1], grey.shape[0]), interpolation=cv2.INTER_NEAREST) > 0
    ] = 0
    if cv2.countNonZero(ink) > _MOST_INK * ink.size:
        ink[:] = 0  # a photograph of something else
    return np.asarray(ink, dtype=np.uint8)


def _beside_sheet(paper: Mask) -> Mask:
    """Return where a photograph shows what the sheet lies on, with a rim: it is far darker than the paper."""
    level, _ = cv2.threshold(paper, 0, 255, cv2.THRESH_BINARY | cv2.THRESH_OTSU)
    dark = paper <= level
    if not dark.any() or dark.all() or paper[dark].mean() > _TABLE_SHARE * paper[~dark].mean():
        return np.zeros_like(paper)
    # The sheet is the largest bright place; a bright rim that the picture was given is none.
    count, labels, boxes, _ = cv2.connectedComponentsWithStats((~dark).astype(np.uint8))
    inner = [k for k in range(1, count) if not _at_edge(boxes[k], paper.shape)] or list(range(1, count))
    sheet = (labels == max(inner, key=lambda k: int(boxes[k][4]))).astype(np.uint8)
    outline, _ = cv2.findContours(sheet, cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_SIMPLE)
    whole = cv2.drawContours(np.zeros_like(paper), outline, -1, 255, -1)
    return np.asarray(255 - cv2.erode(whole, np.ones((_RIM_PX, _RIM_PX), np.uint8)), dtype=np.uint8)


def _at_edge(box: NDArray[np.int32], shape: tuple[int, ...]) -> bool:
    x, y, w, h, _ = (int(v) for v in box)
    return x == 0 or y == 0 or x + w == shape[1] or y + h == shape[0]


def slope_deg(thick: Mask) -> float:
    """Return by how much the walls are turned from the picture's sides, degrees, 45 at the most."""
    edges = cv2.Canny(thick, 50, 150)
    lines = cv2.HoughLinesP(edges, 1, math.radians(_STEP_DEG), 60, minLineLength=60, maxLineGap=6)
    if lines is None:
        return 0.0
    rows = np.asarray(lines, dtype=float).reshape(-1, 4)
    size = np.hypot(rows[:, 2] - rows[:, 0], rows[:, 3] - rows[:, 1])
    turns = np.degrees(np.arctan2(rows[:, 3] - rows[:, 1], rows[:, 2] - rows[:, 0]))
    folded = (turns + 45) % 90 - 45
    counts, bins = np.histogram(folded, bins=180, range=(-45, 45), weights=size)
    peak = bins[int(counts.argmax())] + 0.25
    near = np.abs((folded - peak + 45) % 90 - 45) < 1.5
    off = (folded[near] - peak + 45) % 90 - 45
    return float(peak + np.average(off, weights=size[near])) if near.any() else float(peak)


def fill_outlined(ink: Mask, m_per_px: float, thick_px: int) -> None:
    """Fill walls that are drawn as two lines, where more are than ``thick_px`` of strokes."""
    paper = cv2.bitwise_not(ink)
    count, labels, boxes, _ = cv2.connectedComponentsWithStats(paper, connectivity=4)
    deep = cv2.distanceTransform(paper, cv2.DIST_L2, 3)
    widest = np.zeros(count)
    np.maximum.at(widest, labels.ravel().astype(np.intp), deep.ravel())
    least = THINNEST_M / 4 / m_per_px
    hollow, length = np.zeros(count, dtype=bool), 0.0
    for k in range(1, count):
        long = float(boxes[k][4]) / max(1.0, 2 * widest[k])
        # Where walls meet they are wider; a table is as wide, and short.
        most = (_OUTLINED_M if long > _NO_TABLE_M / m_per_px else _OUTLINED_M / 2) / m_per_px
        if (
            least <= widest[k] <= most
            and long > SHORTEST_M / m_per_px
            and not _at_edge(boxes[k], paper.shape)
        ):
            hollow[k] = True
            length += long
    if length > thick_px / max(1.0, 0.2 / m_per_px):
        ink[hollow[labels]] = 255
