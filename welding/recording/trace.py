"""A trace for the screen: lowest and highest value of each channel, bucket by bucket."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from welding.recording.signals import Samples

BUCKET = 256
"""Samples in a bucket of the finest level; finer views are cut from the samples themselves."""
COARSER = 8
FEWEST = 512


@dataclass(frozen=True, slots=True)
class Level:
    """One level: bucket ``k`` holds samples ``k * size`` to ``(k + 1) * size - 1``.

    ``low`` and ``high`` have the shape (channels, buckets); ``start_s`` is each bucket's first time.
    """

    size: int
    start_s: Samples
    low: Samples
    high: Samples


def levels_of(time_s: Samples, channels: tuple[Samples, ...]) -> tuple[Level, ...]:
    """Levels from 256 samples a bucket upwards, each eight times coarser, until few buckets remain.

    A bucket whose samples are all missing (NaN) stays NaN.
    """
    levels: list[Level] = []
    size = BUCKET
    start, low, high = _bucketed(time_s, channels, size)
    while True:
        levels.append(Level(size, start, low, high))
        if start.size <= FEWEST:
            return tuple(levels)
        size *= COARSER
        edges = np.arange(0, start.size, COARSER)
        start = start[edges]
        low = np.fmin.reduceat(low, edges, axis=1)
        high = np.fmax.reduceat(high, edges, axis=1)


def _bucketed(time_s: Samples, channels: tuple[Samples, ...], size: int) -> tuple[Samples, Samples, Samples]:
    edges: NDArray[np.int64] = np.arange(0, time_s.size, size)
    if edges.size == 0:
        empty = np.empty((len(channels), 0))
        return time_s[:0], empty, empty
    low = np.vstack([np.fmin.reduceat(one, edges) for one in channels])
    high = np.vstack([np.fmax.reduceat(one, edges) for one in channels])
    return time_s[edges], low, high


def thinned(time_s: Samples, channels: tuple[Samples, ...], most: int) -> Level:
    """One level of at most ``most`` buckets over all the samples given; no peak is lost."""
    size = max(1, -(-time_s.size // most))
    return Level(size, *_bucketed(time_s, channels, size))
