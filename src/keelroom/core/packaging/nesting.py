"""Which sheets pieces are cut from: pieces laid in rows, tallest first."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

KERF = 5e-3
"""[m] left between pieces for the cut (common practice)."""


class Laid(NamedTuple):
    """sheets: how many; used: share of their area; too_large: numbers of the pieces that go into no sheet."""

    sheets: int
    used: float
    too_large: tuple[int, ...]


def laid_out(pieces: Sequence[tuple[float, float]], sheet: tuple[float, float]) -> Laid:
    """Pieces (width, height) [m] on sheets [m], turned where that fits better; rows as high as their first piece.

    A layout that can be cut, not the least possible. Source: next-fit decreasing height, from memory.
    """
    long, short = max(sheet), min(sheet)
    sized = [(max(piece) + KERF, min(piece) + KERF) for piece in pieces]
    too_large = tuple(k for k, (a, b) in enumerate(sized) if a > long + KERF + 1e-9 or b > short + KERF + 1e-9)
    order = sorted((k for k in range(len(sized)) if k not in too_large), key=lambda k: -sized[k][1])
    rows: list[list[float]] = []
    """each: sheet, height it takes, length taken"""
    heights: list[float] = []
    for k in order:
        wide, high = sized[k]
        row = next((row for row in rows if row[2] + wide <= long + KERF and high <= row[1] + 1e-9), None)
        if row is None:
            page = next((n for n, taken in enumerate(heights) if taken + high <= short + KERF), None)
            if page is None:
                page = len(heights)
                heights.append(0.0)
            heights[page] += high
            row = [page, high, 0.0]
            rows.append(row)
        row[2] += wide
    area = sum(pieces[k][0] * pieces[k][1] for k in order)
    return Laid(len(heights), area / (len(heights) * long * short) if heights else 0.0, too_large)
