"""Mains on the drawing: where cables lie, what is kept clear, sockets in reach, runs beside them."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.cabling import assess_cable
from heathrise.core.catalogue import Catalogue
from heathrise.core.context.findings import Finding
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, Device, Element, Light, MainsRoute, Panel, Socket, Wall, apply
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.mains import clear_space, mains_lines

from ..thorough import examples
from .plans import access_point, design_of, rack, shell, wall
from .sites import sites


def _walled(*more: Element, width: float = 20, depth: float = 20) -> Design:
    corners = [(0.0, 0.0), (width, 0.0), (width, depth), (0.0, depth)]
    walls = [wall(k, corners[k], corners[(k + 1) % 4], "plasterboard") for k in range(4)]
    return design_of(*shell(width, depth), *walls, *more)


def _found(design: Design, catalogue: Catalogue, key: str) -> list[Finding]:
    return [f for f in evaluate(Plan(design, catalogue), wait=True).findings if f.id.startswith(key)]


def test_a_guess_runs_along_the_walls_and_says_so() -> None:
    panel = Panel(id="p", floor="f", name="Panel", at=(5, 0))
    socket = Socket(id="s", floor="f", name="Socket", at=(20, 10))
    (line,) = mains_lines(_walled(panel, socket))
    assert line.guessed and line.points == ((5, 0), (20, 0), (20, 10)) and line.length_m == 25
    drawn = MainsRoute(id="r", floor="f", name="Ring", path=((5, 0), (5, 10), (20, 10)))
    (line,) = mains_lines(_walled(panel, socket, drawn))  # what is drawn to it is no guess
    assert not line.guessed and line.length_m == 25
    assert mains_lines(_walled(socket)) == ()  # nobody knows where its panel is


def test_the_clear_space_turns_with_its_panel(catalogue: Catalogue) -> None:
    for azimuth, box in (
        (0, (-0.375, 0, 0.375, 0.9)),
        (90, (0, -0.375, 0.9, 0.375)),
        (180, (-0.375, -0.9, 0.375, 0)),
    ):
        panel = Panel(id="p", floor="f", name="Panel", at=(0, 0), azimuth_deg=azimuth)
        assert clear_space(panel, catalogue.rules).bounds == pytest.approx(box, abs=1e-9)


def test_a_device_in_a_panel_space_or_at_a_light_is_moved_out(catalogue: Catalogue) -> None:
    panel = Panel(id="p", floor="f", name="Panel", at=(5, 0))
    low = access_point(5.2, 0.5, "low", height_m=1.5, mount="wall")
    high = access_point(5.0, 0.5, "high", height_m=2.2, mount="wall")
    light = Light(id="l", floor="f", name="Lamp", at=(10, 10))
    lit = access_point(10.1, 10.1, "lit")
    design = _walled(rack(1, 1), panel, light, low, high, lit)
    (found,) = _found(design, catalogue, "plan-panel")
    assert "LOW stands in the clear space of Panel" in found.text and "0.9\u00a0m deep" in found.text
    assert {u.figure for u in found.used} >= {"plan.panel_space_m.deep"}
    (close,) = _found(design, catalogue, "plan-light")
    assert "0.14\u00a0m from Lamp" in close.text
    mended = apply(apply(design, found.cures[0].changes), close.cures[0].changes)
    assert not _found(mended, catalogue, "plan-panel") and not _found(mended, catalogue, "plan-light")


def test_gear_with_its_own_supply_wants_a_socket(catalogue: Catalogue) -> None:
    router = Device(
        id="r",
        floor="f",
        kind="router",
        model="harrowfen-r4",
        name="Router",
        at=(15, 15),
        height_m=1.2,
        mount="wall",
    )
    far = Socket(id="s", floor="f", name="Socket", at=(15, 18), height_m=0.3)
    panel = Panel(id="p", floor="f", name="Panel", at=(5, 0))
    (found,) = _found(_walled(rack(1, 1), router, far, panel), catalogue, "plan-socket")
    assert found.figure == pytest.approx(math.hypot(3, 0.9), abs=0.01) and found.limit == 1.5
    split, socket = found.cures
    assert split.label.startswith("Feed it off its cable")
    mended = apply(_walled(rack(1, 1), router, far, panel), socket.changes)
    assert not _found(mended, catalogue, "plan-socket")
    made = next(s for s in mended.of(Socket).values() if s.state == "new")
    assert "by a licensed electrician" in socket.effect and made.at == (15, 15)
    assert not _found(_walled(rack(14.5, 15), router, far, panel), catalogue, "plan-socket-r")  # in the rack


def test_a_run_keeps_off_mains_it_would_lie_beside(catalogue: Catalogue) -> None:
    """The way beside a mains cable costs more, so the run takes the next line of the lattice."""
    device = access_point(19, 5)
    plain = _walled(rack(1, 5), device)
    beside = MainsRoute(id="m", floor="f", name="Ring", path=((0, 5.1), (20, 5.1)))
    (run,) = assess_cable(_walled(rack(1, 5), device, beside), catalogue).runs
    (free,) = assess_cable(plain, catalogue).runs
    assert _beside_plainly(run.legs, [beside], 0.3) < 10 < _beside_plainly(free.legs, [beside], 0.3)
    assert run.fixed_m <= free.fixed_m + 3


def test_a_run_that_cannot_keep_off_is_told(catalogue: Catalogue) -> None:
    """A passage no wider than its mains: 16 m beside it, and one crossed at 45 degrees."""
    panel = MainsRoute(id="m", floor="f", name="Ring", path=((0, 0.25), (20, 0.25)))
    aslant = MainsRoute(id="n", floor="f", name="Feed", path=((9.0, -1.0), (11.0, 1.0)))
    design = _walled(rack(1, 0.2), access_point(18, 0.2), panel, aslant, width=20, depth=0.5)
    rows = _found(design, catalogue, "cable-mains")
    (long,) = [f for f in rows if f.severity == "near"]
    assert long.limit == 0.3 and "beside Ring" in long.text
    (cross,) = [f for f in rows if f.id.endswith("aslant")]
    assert cross.figure == 45 and "45°" in cross.text


def _beside_plainly(legs: object, mains: list[MainsRoute], apart_m: float, step_m: float = 0.05) -> float:
    """The slow reference: walk each leg in steps, count those near a mains cable and along it."""
    found = 0.0
    for leg in legs:  # type: ignore[attr-defined]
        if leg.kind in ("rise", "drop", "riser", "duct", "outdoor"):
            continue
        for a, b in itertools.pairwise(leg.points):
            length = math.dist(a, b)
            for k in range(int(length / step_m)):
                x, y = (p + (q - p) * (k + 0.5) * step_m / length for p, q in zip(a, b, strict=True))
                found += step_m * any(
                    _near(x, y, p, q, apart_m)
                    and abs((b[0] - a[0]) * (q[0] - p[0]) + (b[1] - a[1]) * (q[1] - p[1]))
                    > math.cos(math.radians(30)) * length * math.dist(p, q)
                    for m in mains
                    if m.floor == leg.floor
                    for p, q in itertools.pairwise(m.path)
                )
    return found


def _near(x: float, y: float, p: tuple[float, float], q: tuple[float, float], apart_m: float) -> bool:
    span = math.dist(p, q)
    t = max(0.0, min(1.0, ((x - p[0]) * (q[0] - p[0]) + (y - p[1]) * (q[1] - p[1])) / span**2))
    return math.dist((x, y), (p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1]))) <= apart_m


@given(site=sites(), data=st.data())
@examples(25)
def test_metres_beside_mains_are_those_of_the_reference(
    site: Design, data: st.DataObject, catalogue: Catalogue
) -> None:
    walls = [w for w in site.of(Wall).values() if w.floor == "f0"]
    if not walls:
        return
    one = data.draw(st.sampled_from(walls))
    from heathrise.core.cabling.beside_mains import beside
    from heathrise.core.design import put

    route = MainsRoute(id="m", floor=one.floor, name="M", path=(one.a, one.b))
    design = apply(site, [put(route)])
    for run in assess_cable(design, catalogue).runs:
        told = sum(r.along_m for r in beside(run, mains_lines(design), 0.3))
        assert told == pytest.approx(_beside_plainly(run.legs, [route], 0.3), abs=0.4)


@given(site=sites(), data=st.data())
@examples(25)
def test_a_guess_is_the_shortest_way_along_the_walls(site: Design, data: st.DataObject) -> None:
    """Against the plainest search: relax every pair of spots on the walls until nothing changes."""
    walls = [w for w in site.of(Wall).values() if w.floor == "f0"]
    if not walls:
        return
    first, last = (data.draw(st.sampled_from(walls)) for _ in range(2))
    start, end = first.a, last.b
    design = design_of(
        *(e for _, e in site.elements()),
        Panel(id="p", floor="f0", name="P", at=start),
        Socket(id="s", floor="f0", name="S", at=end, panel="p"),
    )
    (line,) = mains_lines(design)
    shortest = _plain_way(walls, start, end)
    if shortest is not None:
        assert line.length_m == pytest.approx(shortest, abs=0.06)
    assert line.points[0] == pytest.approx(start, abs=1e-3) and line.points[-1] == pytest.approx(
        end, abs=1e-3
    )


def _plain_way(walls: list[Wall], start: tuple[float, float], end: tuple[float, float]) -> float | None:
    def on(p: tuple[float, float], w: Wall) -> bool:
        return math.dist(w.a, p) + math.dist(p, w.b) < w.length_m + 1e-7

    spots = [start, end, *(p for w in walls for p in (w.a, w.b))]
    for v, w in itertools.combinations(walls, 2):
        cross = _crossing(v, w)
        if cross is not None:
            spots.append(cross)
    far = [0.0 if math.dist(p, start) < 1e-6 else math.inf for p in spots]
    of_wall = [[k for k, p in enumerate(spots) if on(p, w)] for w in walls]
    changed = True
    while changed:
        changed = False
        for rows in of_wall:
            for i, j in itertools.permutations(rows, 2):
                if far[i] + math.dist(spots[i], spots[j]) < far[j] - 1e-9:
                    far[j], changed = far[i] + math.dist(spots[i], spots[j]), True
    best = min(f for p, f in zip(spots, far, strict=True) if math.dist(p, end) < 1e-6)
    return best if math.isfinite(best) else None


def _crossing(v: Wall, w: Wall) -> tuple[float, float] | None:
    (ax, ay), (bx, by), (cx, cy), (dx, dy) = v.a, v.b, w.a, w.b
    det = (bx - ax) * (dy - cy) - (by - ay) * (dx - cx)
    if abs(det) < 1e-9:
        return None
    t = ((cx - ax) * (dy - cy) - (cy - ay) * (dx - cx)) / det
    u = ((cx - ax) * (by - ay) - (cy - ay) * (bx - ax)) / det
    return (
        (ax + t * (bx - ax), ay + t * (by - ay))
        if -1e-9 <= t <= 1 + 1e-9 and -1e-9 <= u <= 1 + 1e-9
        else None
    )
