"""Measures what the project promises: ``./run bench``, or parts of it by name.

Figures that depend on the machine are printed beside a ratio within the same run; nothing here
is a test.
"""

from __future__ import annotations

import os
import random
import statistics
import subprocess
import sys
import time
from collections.abc import Callable

import numpy as np
import shapely

from bench import kernel_before
from bench.bring_ups import bring_ups
from bench.diagram import diagram
from bench.drag import drag_latencies_ms
from bench.edit import edits
from bench.far import far
from bench.flat import flat
from bench.fuzz import fuzz
from bench.fuzz_designs import fuzz_designs
from bench.kills import kills
from bench.large_site import large_site
from bench.load import starts, under_load
from bench.migrations import migrations
from bench.numpy_walls import wall_losses_broadcast, wall_losses_numpy
from bench.packets import packets
from bench.papers import papers
from bench.places import places
from bench.rack import rack
from bench.sheet import sheet
from bench.soak import soak
from bench.tall import tall
from bench.walls import walls
from bench.wire import wire
from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.context.readings import Reading
from heathrise.core.context.storeys import Slab
from heathrise.core.design import Design, Device, Floor, apply, put
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.signal import environment_of
from heathrise.core.signal.assess import air_of
from heathrise.core.signal.grid import Grid
from heathrise.core.signal.kernel import wall_losses_db
from heathrise.core.signal.relief import relief
from heathrise.core.signal.slabs import add_slabs_db, layers_of
from heathrise.core.views.calibration import calibration_view
from heathrise.core.views.shown import shown
from heathrise.demo import music_school

from .pace import Failed, Marks

POINTS = (200, 120)
WALLS = 300
SEED = 7


def median_ms(work: Callable[[int], object], runs: int = 9) -> float:
    """Return the median time of ``work(k)`` over some runs, in ms, after one to warm up."""
    work(0)
    times = []
    for k in range(1, runs + 1):
        start = time.perf_counter()
        work(k)
        times.append((time.perf_counter() - start) * 1e3)
    return statistics.median(times)


def scattered_walls(count: int = WALLS) -> np.ndarray:
    """Return walls of 1 to 6 m, square to a floor of 40 x 24 m, each with its own loss."""
    rng = np.random.default_rng(SEED)
    length = rng.uniform(1, 6, count)
    turn = rng.integers(0, 4, count) * np.pi / 2
    panels = np.zeros((count, 12))
    panels[:, 0], panels[:, 1] = rng.uniform(0, 40, count), rng.uniform(0, 24, count)
    panels[:, 2], panels[:, 3] = np.cos(turn) * length, np.sin(turn) * length
    panels[:, 5], panels[:, 7], panels[:, 8] = 1, 3, length
    panels[:, 9:] = rng.uniform(2, 16, (count, 3))
    return panels


def kernel() -> None:
    panels = scattered_walls()
    x, y = Grid(0.0, 0.0, 0.2, *POINTS).points
    print(f"Kernel: one access point moved, {len(x)} points x {len(panels)} walls, three bands")

    def compiled(k: int) -> object:
        return wall_losses_db(x, y, 1.2, (10.0 + 0.3 * k, 8.0, 2.7), panels)

    def broadcast(k: int) -> object:
        return wall_losses_broadcast(x, y, 1.2, (10.0 + 0.3 * k, 8.0, 2.7), panels)

    def by_wall(k: int) -> object:
        return wall_losses_numpy(x, y, 1.2, (10.0 + 0.3 * k, 8.0, 2.7), panels)

    fast = median_ms(compiled, 21)
    whole, walled = median_ms(broadcast, 3), median_ms(by_wall, 5)
    print(f"  compiled                        {fast:8.1f} ms   (wanted under 20 ms)")
    print(f"  NumPy, points x walls at once   {whole:8.1f} ms   ratio {whole / fast:6.1f} (wanted 50)")
    print(f"  NumPy, wall after wall          {walled:8.1f} ms   ratio {walled / fast:6.1f}")
    _curve(x, y)
    _against_before(x, y, panels)


def _curve(x: np.ndarray, y: np.ndarray) -> None:
    """How both grow with the walls."""
    for count in (75, 150, 300, 600, 1200):
        panels = scattered_walls(count)

        def compiled(k: int, panels: np.ndarray = panels) -> object:
            return wall_losses_db(x, y, 1.2, (10.0 + 0.3 * k, 8.0, 2.7), panels)

        def by_wall(k: int, panels: np.ndarray = panels) -> object:
            return wall_losses_numpy(x, y, 1.2, (10.0 + 0.3 * k, 8.0, 2.7), panels)

        fast, walled = median_ms(compiled, 9), median_ms(by_wall, 2)
        print(
            f"    {count:5d} walls                 {fast:8.2f} ms   NumPy {walled:7.1f} ms, "
            f"ratio {walled / fast:6.1f}"
        )


def _against_before(x: np.ndarray, y: np.ndarray, panels: np.ndarray) -> None:
    """The whole path of one access point now, and walls alone as they once were."""
    catalogue = load_catalogue()
    square = ((0.0, 0.0), (40.0, 0.0), (40.0, 24.0), (0.0, 24.0))
    slabs = [
        Slab(z, of, shapely.Polygon(square), "f", roof)
        for z, of, roof in ((3.0, "floor-concrete", False), (6.0, "roof-tiles", True))
    ]
    layers = layers_of(slabs, catalogue)

    def now(k: int) -> object:
        source = (10.0 + 0.3 * k, 8.0, 4.2)
        losses = wall_losses_db(x, y, 1.2, source, panels)
        add_slabs_db(losses, x, y, 1.2, source, layers)
        return losses

    def before(k: int) -> object:
        return kernel_before.wall_losses_db(x, y, 1.2, (10.0 + 0.3 * k, 8.0, 4.2), panels)

    pairs = [(median_ms(now, 7), median_ms(before, 7)) for _ in range(3)]
    ratio = statistics.median(a / b for a, b in pairs)
    took = statistics.median(a for a, _ in pairs)
    print(
        f"  with slab edges and roof        {took:8.1f} ms   {ratio:5.2f} times the former kernel "
        "(wanted 1.3)"
    )


def _moved(design: Design, k: int, key: str = "ap-6") -> Design:
    device = design.of(Device)[key]
    at = (device.at[0] - 0.17 * k, device.at[1])
    return apply(design, [put(device.model_copy(update={"at": at}))])


def evaluation() -> None:
    """What a screen shows of the demo's school: evaluation and price, each really worked out."""
    marks = Marks("The school as a screen shows it: evaluation and price")
    catalogue, school = load_catalogue(), music_school()
    shown(Plan(school, catalogue))
    evaluate(Plan(school, catalogue), wait=True)

    def drawn(k: int) -> object:
        plan = Plan(_moved(school, k + 100), catalogue)
        shown(plan)
        return relief(environment_of(plan, "5"), "ground", "5", 1, "weaker")

    marks.row("opened", median_ms(lambda _: shown(Plan(music_school(), catalogue))), "ms", 180)
    marks.row(
        "nothing moved", median_ms(lambda _: shown(Plan(Design(dict(school.tables)), catalogue))), "ms", 25
    )
    moved = median_ms(lambda k: shown(Plan(_moved(school, k), catalogue)))
    marks.row("one access point moved, figures", moved, "ms")
    marks.row("the same to figures and relief", median_ms(drawn), "ms", 60)
    dragged = median_ms(lambda k: shown(Plan(_moved(school, k + 50), catalogue, quick=True)))
    marks.row("while dragging", dragged, "ms", 25, f"ratio {moved / dragged:.1f}")


def large() -> None:
    marks = Marks("100 access points on five floors")
    catalogue = load_catalogue()
    site = large_site(catalogue)
    shown(Plan(site, catalogue))
    devices = len(site.of(Device))
    if devices < 100:
        raise Failed(f"the large site has {devices} devices")
    opened = median_ms(lambda _: shown(Plan(large_site(catalogue), catalogue)), 3)
    marks.row("opened", opened, "ms", 1200)
    moved = median_ms(lambda k: shown(Plan(_moved(site, k, "ap-f0-2-0"), catalogue)))
    marks.row("an edit", moved, "ms", 250)

    def drawn(k: int) -> object:
        air = environment_of(Plan(_moved(site, k, "ap-f0-2-0"), catalogue), "5")
        return relief(air, "f0", "5", 1, "weaker", quick=True)

    def dragged(k: int) -> object:
        return shown(Plan(_moved(site, k + 50, "ap-f0-2-0"), catalogue, quick=True))

    marks.row("relief while dragging", median_ms(drawn), "ms")
    marks.row("figures while dragging", median_ms(dragged), "ms")


def measured() -> None:
    """Fit 20,000 levels, and again after one access point was moved."""
    catalogue, school, chance = load_catalogue(), music_school(), random.Random(3)
    air = air_of(school, catalogue)
    radios, floors = sorted(air.radios), list(school.of(Floor))
    readings = tuple(
        Reading(
            floor=chance.choice(floors),
            device=device,
            band=band,
            dbm=chance.uniform(-95, -40),
            at=(round(chance.uniform(0, 40), 2), round(chance.uniform(0, 16), 2)),
        )
        for device, band in (chance.choice(radios) for _ in range(20_000))
    )
    took = median_ms(lambda k: calibration_view(Plan(_moved(school, k), catalogue), readings), runs=5)
    print("Fit of 20,000 measured levels, one access point moved each time")
    print(f"  school                          {took:8.1f} ms   (wanted under 1000)")


def drag() -> None:
    marks = Marks("Drag in Chromium: pointer move to new relief on screen")
    times = drag_latencies_ms()
    if len(times) < 20:
        raise Failed(f"{len(times)} moves were seen")
    marks.row("median", statistics.median(times), "ms")
    marks.row(f"95 % of {len(times)} moves", statistics.quantiles(times, n=20)[18], "ms", 70)


def imports() -> None:
    """Import the core's face alone, each time in a process of its own."""
    marks = Marks("Import of the core alone, before anything is computed")
    # As on any machine where it is installed: what is compiled once is kept.
    compiled = {k: v for k, v in os.environ.items() if k != "PYTHONDONTWRITEBYTECODE"}

    def seconds(module: str) -> float:
        start = time.perf_counter()
        subprocess.run([sys.executable, "-c", f"import {module}"], check=True, env=compiled)
        return time.perf_counter() - start

    took = statistics.median(seconds("heathrise.core") for _ in range(5))
    bare = statistics.median(seconds("sys") for _ in range(5))
    marks.row("heathrise.core", 1e3 * (took - bare), "ms", 250, f"after Python's own {1e3 * bare:.0f} ms")


PARTS: dict[str, Callable[[], object]] = {
    "imports": imports,
    "kernel": kernel,
    "evaluation": evaluation,
    "large": large,
    "edits": edits,
    "papers": papers,
    "places": places,
    "rack": rack,
    "wire": wire,
    "packets": packets,
    "bring_ups": bring_ups,
    "diagram": diagram,
    "walls": walls,
    "sheet": sheet,
    "far": far,
    "tall": tall,
    "flat": flat,
    "measured": measured,
    "drag": drag,
    "load": under_load,
    "starts": starts,
    "kills": kills,
    "migrations": migrations,
    "fuzz": fuzz,
    "designs": fuzz_designs,
    "soak": soak,
}


def main() -> None:
    """Measure all parts, or those that are named."""
    names = sys.argv[1:] or list(PARTS)
    unknown = [name for name in names if name not in PARTS]
    if unknown:
        sys.exit(f"there is no part {unknown[0]!r}; there are {', '.join(PARTS)}")
    failed = []
    for name in names:
        try:
            PARTS[name]()
        except Failed as error:
            failed.append(name)
            print(f"  FAILED: {error}")
    if failed:
        sys.exit(f"what was to be measured did not happen: {', '.join(failed)}")


if __name__ == "__main__":
    main()
