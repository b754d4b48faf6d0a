"""The whole signal of a tall site from nothing: six storeys, ten access points on each."""

from __future__ import annotations

import resource
import time

from bench.tall_site import STOREYS, tall_site
from heathrise.core.base.bands import BANDS
from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.design import Design, Device, Floor, apply, put
from heathrise.core.signal import air_of, relief


def _cold_s(design: Design, catalogue: Catalogue) -> tuple[float, float]:
    """Return seconds for the levels that power rests on, and for all storeys' relief, 0.4 m."""
    begun = time.perf_counter()
    air = air_of(design, catalogue)
    levels = time.perf_counter() - begun
    for floor in design.of(Floor):
        for band in BANDS:
            relief(air, floor, band, 1, "weaker", quick=True)
    return levels, time.perf_counter() - begun


def tall() -> None:
    """Print the cold relief of all storeys, one moved after it, memory, and how cost grows."""
    catalogue = load_catalogue()
    _cold_s(tall_site(catalogue, 1, 5), catalogue)  # the kernels are made
    design = tall_site(catalogue)
    levels, whole = _cold_s(design, catalogue)
    print("Tall site: 6 storeys, 60 access points, 300 walls a storey, three bands, 0.4 m")
    print(f"  cold, levels and all relief     {whole:8.1f} s    (wanted 3; levels {levels:.1f} s)")
    device = next(iter(design.of(Device).values()))
    times = []
    for k in range(6):
        moved = apply(design, [put(device.model_copy(update={"at": (7.0 + 0.4 * k, 7.0)}))])
        begun = time.perf_counter()
        relief(air_of(moved, catalogue, "5"), device.floor, "5", 1, "weaker", quick=True)
        times.append((time.perf_counter() - begun) * 1e3)
    last = max(times[1:])
    print(f"  one moved after that            {last:8.0f} ms   (wanted 60; first {times[0]:.0f} ms)")
    memory = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    print(f"  memory of this process          {memory:8.0f} MB   (wanted 1000)")
    half, few = (
        _cold_s(tall_site(catalogue, *size), catalogue)[1] for size in ((STOREYS // 2, 10), (STOREYS, 5))
    )
    print(
        f"  half the storeys: {half / whole:.2f} of it (linear in walls and points: 0.25); "
        f"half the access points: {few / whole:.2f} (linear: 0.50)"
    )
