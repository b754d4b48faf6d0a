"""One count: order, work list and schedule hold the same minutes, and each step its cautions.

The references count again from the evaluation and the design alone, thing by thing.
"""

from __future__ import annotations

import math
from collections import Counter
from datetime import date

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.context.scope import as_planned
from heathrise.core.design import (
    Building,
    Design,
    Device,
    Duct,
    Extender,
    Floor,
    Injector,
    Network,
    OwnFigure,
    Socket,
    Space,
    Switch,
    apply,
    put,
)
from heathrise.core.evaluation.evaluate import Evaluation, evaluate
from heathrise.core.install import Step, finish_for
from heathrise.core.order import Order
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.work_list import steps_of
from heathrise.demo import SITES

from ..thorough import examples
from .plans import access_point, design_of, rack, shell
from .sites import sites

CATALOGUE = load_catalogue()
TODAY = date(2026, 11, 25)
KEYS = [s.key for s in SITES]


@st.composite
def jobs(draw: st.DrawFn) -> Design:
    """A random site with a switch, old gear, outlets, a camera outside, a duct, an injector."""
    design = draw(sites(devices=2))
    height = st.sampled_from([1.1, 2.3, 4.05, 6.2])
    more = [
        Switch(id="sw", equipment_room="rack", name="SW", model="dunthrip-s16"),
        Network(id="n", name="Main", purpose="main", vlan=1, subnet="10.0.0.0/24"),
        OwnFigure(
            id="hot", figure="cabling.space_c.attic", value=draw(st.sampled_from([30.0, 35.0, 45.0, 50.0]))
        ),
    ]
    overhead = draw(st.sampled_from(["ceiling_void", "attic"]))
    floors = [put(f.model_copy(update={"overhead": overhead})) for f in design.of(Floor).values()]
    years = draw(st.sampled_from([None, 1962, 2014]))
    houses = [put(b.model_copy(update={"built": years})) for b in design.of(Building).values()]
    for k in range(draw(st.integers(0, 14))):
        more.append(
            Device(
                id=f"out-{k}",
                floor="f0",
                kind="outlet",
                model="outlet-double",
                name=f"O{k}",
                at=(0.5 + 0.1 * k, 1.0),
                height_m=0.3,
                mount="wall",
            )
        )
    if draw(st.booleans()):
        more.append(
            Device(
                id="cam",
                floor="f0",
                kind="camera",
                model="peltwick-turret",
                name="CAM",
                at=(-4.0, -3.0),
                height_m=draw(height),
                mount="wall",
            )
        )
    if draw(st.booleans()):
        dug = draw(st.sampled_from(["loam", "stony", "machine", "there"]))
        more.append(
            Duct(
                id="duct",
                name="Duct",
                from_floor="f0",
                to_floor="s0",
                dug=dug,
                path=((1.0, 3.0), (1.0, 12.0), (4.0, 15.0)),
                depth_m=draw(st.sampled_from([0.3, 0.45, 0.6, 1.5])),
            )
        )
        more.append(
            Device(
                id="far",
                floor="s0",
                kind="access_point",
                model="ravelmoor-c2",
                name="FAR",
                at=(5.0, 16.0),
                height_m=2.4,
            )
        )
    if draw(st.booleans()):
        more.append(
            Device(
                id="old",
                floor="f0",
                kind="access_point",
                model="old-router",
                name="OLD",
                at=(1.0, 2.0),
                height_m=draw(height),
                mount="wall",
                state="retire",
            )
        )
    if draw(st.booleans()):
        more.append(
            Device(
                id="used",
                floor="f0",
                kind="access_point",
                model="ravelmoor-c2",
                name="USED",
                at=(1.5, 2.0),
                height_m=draw(height),
                state="keep",
            )
        )
    if draw(st.booleans()):
        more.append(Injector(id="inj", device="ap-0", model="peltwick-i30"))
    return apply(design, [*floors, *houses, *(put(e) for e in more)])


def _worked(design: Design) -> tuple[Evaluation, list[Step], Order]:
    evaluation = evaluate(Plan(design, CATALOGUE))
    steps = steps_of(Plan(design, CATALOGUE))
    return evaluation, steps, order_of(Plan(design, CATALOGUE, on=TODAY))


def _check_sums(design: Design) -> None:
    evaluation, steps, order = _worked(design)
    by_hand = _plain_person_minutes(design, evaluation)
    tasks = {t.task: t.minutes for t in order.tasks}
    for task, minutes in by_hand.items():
        assert tasks.get(task, 0) == pytest.approx(minutes, abs=0.06 * (len(steps) + 1)), task
    listed = sum(s.minutes * s.people for s in steps)
    assert order.sum.minutes == pytest.approx(listed, abs=0.01)
    assert order.sum.minutes == pytest.approx(sum(tasks.values()), abs=0.01)
    for step in steps:
        assert sum(w.person_minutes for w in step.work) == pytest.approx(step.minutes * step.people)
    alone = finish_for(steps, 1)
    assert alone.minutes == pytest.approx(sum(s.minutes for s in steps), abs=0.11)
    helper = sum(s.minutes for s in steps if s.people == 2)
    assert alone.alone_minutes == pytest.approx(helper, abs=0.11)
    assert order.sum.minutes == pytest.approx(alone.minutes + helper, abs=0.3)
    # Days: what one person with a helper takes, each day with its clearing up.
    work = sum(s.minutes for s in steps if s.id != "clean")
    assert order.sum.days == max(1, math.ceil(work / (450 - 20) - 1e-9))


def _plain_person_minutes(drawn: Design, evaluation: Evaluation) -> Counter[str]:
    """Count person-minutes again, one thing at a time; pulls are left to their own reference."""
    design, found = as_planned(drawn), Counter[str]()
    devices = design.of(Device)
    links = [k for k in evaluation.cable.links if k.verdict != "no_way"]
    for link in links:
        fresh = link.chosen_by != "found"
        between = hasattr(link, "to_room")
        high = not between and devices[link.device].height_m > 2.2  # type: ignore[attr-defined]
        if fresh:
            found["end"] += link.cables * 7 + link.cables * 7 * (2 if high else 1)
            found["dress"] += link.cables * 6 * (2 if between else 1)
        found["test"] += 4 * link.cables
        pole = not between and devices[link.device].mount == "pole"  # type: ignore[attr-defined]
        leaves = link.between_buildings or link.duct_m > 0 or link.outdoor_m > 1 or pole
        found["surge"] += 2 * 25 * link.cables if leaves and link.medium == "copper" else 0
    for duct in design.of(Duct).values():
        if duct.dug != "there":
            metres = sum(math.dist(a, b) for a, b in zip(duct.path, duct.path[1:], strict=False))
            rate = {"loam": 14, "clay": 20, "stony": 28, "machine": 3, "plough": 1.5}[duct.dug]
            deep = max(0.5, 1 + 0.4 * (duct.depth_m - 0.45) / 0.15)
            alone = metres * rate * deep + {"machine": 60, "plough": 90}.get(duct.dug, 0)
            found["trench"] += 2 * alone / 1.7
    for device in drawn.of(Device).values():
        two = 2 if device.height_m > 2.2 or _on_roof(drawn, device) else 1
        if device.state == "retire":
            found["remove"] += 12 * two
        if device.state in ("new", "keep") and device.kind != "outlet":
            found["adopt"] += 9
            found["reset"] += 10 if device.state == "keep" else 0
        if device.state == "new" and device.kind != "router":
            inside = {"access_point": 22, "camera": 35, "outlet": 14}.get(device.kind, 22)
            outside = device.kind == "access_point" and _outdoors(drawn, device)
            key = f"mount-{device.kind}{'_outside' if outside else ''}"
            found[key] += (45 if outside else inside) * two
    floors = design.of(Floor)
    for extender in design.of(Extender).values():
        run = next(r for r in evaluation.runs if r.device == extender.device)
        kinds = ("ceiling_void", "joists", "raceway", "attic")
        high = any(g.kind in kinds and floors[g.floor].ceiling_height_m > 2.2 for g in run.legs)
        found["extend"] += 22 * (2 if high else 1)
        found["end"] += 14 * (2 if high else 1)
    for one in evaluation.racks.racks:
        if one.fresh:
            heavy = one.kg - sum(t.kg for t in evaluation.racks.things_of(one.room) if t.old) > 20
            found["rack"] += 90 * 0.65 * (2 if heavy else 1)
            found["fit"] += 90 * 0.35 * (2 if heavy else 1)
            found["bond"] += 20
    lengths = {line.socket: line.length_m for line in evaluation.plan.mains}
    for socket in design.of(Socket).values():
        if socket.state == "new":
            found["socket"] += 40 + 3 * lengths.get(socket.id, 0)
    found["switch"] += 12 * sum(s.state == "new" for s in design.of(Switch).values())
    found["remove"] += 12 * sum(s.state == "retire" for s in drawn.of(Switch).values())
    if found["adopt"]:
        found["controller"], found["settings"] = 20, 45
        found["walk"] = 5 * sum(s.use != "none" for s in design.of(Space).values())
    found["prepare"], found["papers"] = 30, 60
    return found


def _outdoors(design: Design, device: Device) -> bool:
    rooms = [s for s in design.of(Space).values() if s.floor == device.floor and not s.outdoor]
    if not rooms:
        return CATALOGUE.model_of(device).outdoor
    spot = shapely.Point(device.at)
    return all(shapely.Polygon(s.outline).distance(spot) > 0.02 for s in rooms)


def _over_ground_m(design: Design, device: Device) -> float:
    floors = design.of(Floor)
    mine = floors[device.floor]
    ground = min(f.elevation_m for f in floors.values() if f.building == mine.building and f.level >= 0)
    return mine.elevation_m + device.height_m - ground


def _on_roof(design: Design, device: Device) -> bool:
    return _outdoors(design, device) and _over_ground_m(design, device) > 4


@examples(60)
@given(jobs())
def test_order_list_and_schedule_hold_one_sum(design: Design) -> None:
    _check_sums(design)


@pytest.mark.parametrize("key", KEYS)
def test_the_made_up_jobs_hold_one_sum(key: str) -> None:
    _check_sums(next(s for s in SITES if s.key == key).make())


# -- cautions, walked step by step -----------------------------------------------------------------


def _has(step: Step, word: str) -> bool:
    return any(c.startswith(word) for c in step.cautions)


def _check_cautions(drawn: Design) -> None:
    evaluation, steps, _ = _worked(drawn)
    design, by_id = as_planned(drawn), {s.id: s for s in steps}
    floors, devices = design.of(Floor), drawn.of(Device)
    runs = {f"run-{r.device}": r for r in evaluation.runs if r.verdict != "no_way"}
    years = {b.id: b.built for b in design.of(Building).values()}
    for step in steps:
        two = ("Ladder", "Roof", "Attic", "Heat", "Lifting", "Ground")
        assert (step.people == 2) == any(_has(step, w) for w in two), step.title
        what, _, key = step.id.partition("-")
        if what in ("mount", "remove") and key in devices:
            device = devices[key]
            assert _has(step, "Ladder") == (device.height_m > 2.2)
            assert _has(step, "Roof") == _on_roof(drawn, device)
            if what == "mount":
                assert _has(step, "Outdoors") == _outdoors(drawn, device)
                assert _has(step, "Drilling") == (device.mount in ("ceiling", "wall"))
                assert any("drip loop" in c for c in step.checks) == _outdoors(drawn, device)
        if what in ("hole", "storey", "rack"):
            assert _has(step, "Drilling")
        if what in ("hole", "storey"):
            floor = floors[step.floor or ""]
            assert _has(step, "Ladder") == (floor.ceiling_height_m > 2.2)
            built = years[floor.building]
            old = any("asbestos" in c for c in step.cautions)
            assert old == (built is None or built < 1990)
        if what == "rack":
            assert _has(step, "Mains") and any("panel" in c for c in step.checks)
        if what == "switch":
            assert _has(step, "Mains")
        if what == "pull" and key in runs:
            run = runs[key]
            kinds = {leg.kind for leg in run.legs}
            assert _has(step, "Attic") == ("attic" in kinds)
            assert _has(step, "Outdoors") == run.leaves
            over = {
                leg.floor for leg in run.legs if leg.kind in ("ceiling_void", "joists", "attic", "raceway")
            }
            if any(floors[f].ceiling_height_m > 2.2 for f in over):
                assert _has(step, "Ladder")
            hot = design.of(OwnFigure)["hot"].value if "hot" in design.of(OwnFigure) else 45.0
            assert _has(step, "Heat") == ("attic" in kinds and hot > 32)  # type: ignore[operator]
            up_m = sum(leg.length_m for leg in run.legs if leg.kind == "attic")
            assert (step.rest_minutes > 0) == (_has(step, "Heat") and up_m > 0.1) or up_m < 0.5
        if what == "far" and key in runs:
            assert _has(step, "Ladder") == (devices[key.removeprefix("run-")].height_m > 2.2)
        if what == "near" and key in runs:
            power = CATALOGUE.model_of(devices[key.removeprefix("run-")]).power
            injected = any(i.device == key.removeprefix("run-") for i in design.of(Injector).values())
            assert _has(step, "Powered") == ((power is not None and power.poe_class > 4) or injected)
        if what == "surge":
            assert step.licensed and _has(step, "Mains")
        if what == "dig":
            duct = design.of(Duct)[key]
            assert any("located first" in c for c in step.cautions)
            assert any("its sides are shored" in c for c in step.cautions) == (duct.depth_m > 1.2)
            through = [r for r in runs.values() if any(leg.way == key for leg in r.legs)]
            for run in through:
                assert step.id in by_id[f"pull-run-{run.device}"].waits  # dug before the pull
    if steps:
        assert any("Permission" in c for c in by_id["safe"].checks)
        assert any("as it is left" in c for c in by_id["papers"].checks)


@examples(60)
@given(jobs())
def test_every_step_carries_what_can_hurt_there(design: Design) -> None:
    _check_cautions(design)


@pytest.mark.parametrize("key", KEYS)
def test_every_step_of_the_made_up_jobs_does(key: str) -> None:
    _check_cautions(next(s for s in SITES if s.key == key).make())


def test_fibre_is_capped_wherever_it_is_handled() -> None:
    steps = {s.id: s for s in _worked(next(s for s in SITES if s.key == "practice").make())[1]}
    up = next(k for k in steps if k.startswith("pull-up-") and _has(steps[k], "Fibre"))
    link = up.removeprefix("pull-")
    for key in (f"far-{link}", f"near-{link}", f"test-{link}"):
        assert _has(steps[key], "Fibre")
    assert any(_has(s, "Fibre") for s in steps.values() if s.id.startswith("switch-"))


def test_a_camera_through_its_wall_wants_no_surge_protection() -> None:
    """0.2 m in air is the wall it hangs on; at 1.5 m it has left the building."""
    for out_m, leaves in ((0.2, False), (1.5, True)):
        camera = Device(
            id="c",
            floor="f",
            kind="camera",
            model="peltwick-turret",
            name="C",
            at=(20 + out_m, 10),
            height_m=2.5,
            mount="wall",
        )
        evaluation, steps, order = _worked(design_of(*shell(), rack(1, 10), camera))
        ids, items = {s.id for s in steps}, {k.item for k in order.lines}
        found = any(f.id.startswith("cable-surge") for f in evaluation.cable.findings)
        assert ("surge-run-c" in ids) == ("surge" in items) == found == leaves
        assert ("cable-6-outdoor" in items) == leaves


def test_a_run_beyond_a_box_comes_off_a_reel_and_beyond_a_reel_is_told() -> None:
    """A straight run of 320 m and its slack are cut from a reel of 500; 480 m with its waste from
    nothing that is sold."""
    for far_m, item in ((320, "cable-6-reel"), (480, None)):
        point = access_point(far_m, 5)
        _, _, order = _worked(design_of(*shell(far_m + 2, 10), rack(1, 5), point))
        bought = {k.item: k.quantity for k in order.lines if k.group == "cable"}
        assert bought == ({item: 1} if item else {})
        assert any("No box and no reel" in t for t in order.told) == (item is None)


def test_the_mill_s_ditch_by_hand() -> None:
    """149 m in loam at 14 minutes: some 35 hours of one person, 41 of two who both dig."""
    _, steps, order = _worked(next(s for s in SITES if s.key == "mill").make())
    dig = next(s for s in steps if s.phase == "dig")
    assert dig.work[0].quantity == pytest.approx(148.8, abs=0.1)
    assert dig.work[0].quantity * 14 / 60 == pytest.approx(34.7, abs=0.1)
    task = next(t for t in order.tasks if t.task == "trench")
    assert task.minutes == pytest.approx(2 / 1.7 * 148.8 * 14, abs=2)
    duct = next(k for k in order.lines if k.item == "duct")
    assert duct.quantity == 149
