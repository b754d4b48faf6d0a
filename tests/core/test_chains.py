"""From the line to a device: each link's figure, the one that binds, what that is worth in words."""

from __future__ import annotations

import pytest

from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.context.scope import as_planned
from heathrise.core.design import Design, Device, Extender, Site, Switch, apply, put
from heathrise.core.evaluation.evaluate import Evaluation, evaluate
from heathrise.demo import SITES

from .plans import access_point, design_of, rack, shell


def _site(
    line: float, model: str = "dunthrip-m24", x: float = 15, *more: Extender, category: str = "5e"
) -> Design:
    elements = [e for e in shell(200, 6) if not isinstance(e, Site)]
    return design_of(
        Site.model_validate(
            {"id": "site", "cables_per_access_point": 1, "line_mbps": line, "minimum_category": category}
        ),
        *elements,
        rack(1, 3),
        access_point(x, 3, model="ravelmoor-c2"),
        Switch(id="sw-1", equipment_room="rack", name="SW-1", model=model),
        *more,
    )


def _evaluated(design: Design, catalogue: Catalogue) -> Evaluation:
    return evaluate(Plan(design, catalogue), wait=True)


def _plain_chain(design: Design, evaluation: Evaluation, device: Device, catalogue: Catalogue) -> list[float]:
    """What each link passes, walked again from the device up."""
    power, run = evaluation.power, next(r for r in evaluation.runs if r.device == device.id)
    model = catalogue.model_of(device)
    found: list[float] = []
    if model.air is not None:
        # The fastest of twelve rates at the width of the site, two streams, a user's share of the air.
        rules, width = catalogue.rules, design.site.width_5ghz_mhz
        top = max(rules.numbers("signal.rate_mbps")) * rules[f"signal.rate_width.{width}"]
        found.append(round(top * rules["signal.streams"] * rules["signal.user_share"]))
    found.append(model.speed_mbps)
    reach = {"5": (100,), "5e": (1000, 2500), "6": (1000, 2500, 5000), "6A": (1000, 2500, 5000, 10000)}[
        run.category
    ]
    if run.hops:
        found.append(run.hops[0].speed_mbps if run.verdict in ("met", "near") else 0)
    elif run.verdict in ("met", "near"):
        found.append(run.speed_mbps)
    else:
        found.append(min(max(reach), run.speed_mbps) if run.fixed_m <= 80 else -1)
    port = next(p for p in power.ports if p.device == device.id)
    found.append(port.speed_mbps)
    at: str | None = port.switch
    while at is not None:
        way = next(w for w in power.ways_up if w.switch == at)
        found.append(way.speed_mbps)
        at = way.to
    routers = [d for d in design.of(Device).values() if d.kind == "router"]
    if routers:
        found.append(catalogue.model_of(routers[0]).inspect_mbps)
    shared = [k for k in evaluation.cable.runs if k.kind == "router" and k.chosen_by == "found"]
    if shared:  # the line shares an old cable: what television leaves of it
        found.append((shared[0].tested_mbps or 0) - 25 * design.site.television)
    return [*found, design.site.line_mbps][::-1]


@pytest.mark.parametrize("site", SITES, ids=lambda s: s.key)
def test_each_link_is_what_it_is_walked_from_the_device(site: object) -> None:
    catalogue = load_catalogue()
    plan = Plan(site.make(), catalogue)  # type: ignore[attr-defined]
    evaluation, design = evaluate(plan, wait=True), as_planned(plan.drawn)
    assert evaluation.chains.chains
    for chain in evaluation.chains.chains:
        plain = _plain_chain(design, evaluation, design.of(Device)[chain.device], catalogue)
        told = [link.mbps for link in chain.links]
        assert len(told) == len(plain)
        assert all(p in (-1, t) for t, p in zip(told, plain, strict=True)), chain.name
        assert told[chain.binds] == min(told)
        inside = [k.mbps for k in chain.links if k.kind not in ("line", "router")]
        assert told[chain.inside] == min(inside)


def test_a_slow_line_decides_that_nothing_else_counts(catalogue: Catalogue) -> None:
    evaluation = _evaluated(_site(60), catalogue)
    (chain,) = evaluation.chains.chains
    assert chain.links[chain.binds].kind == "line"
    assert "no wider cable or switch makes the internet faster" in chain.says
    assert not [f for f in evaluation.findings if f.id.startswith("power-chain")]


def test_what_holds_a_fast_line_back_is_found_and_widened(catalogue: Catalogue) -> None:
    slow = _site(200, "dunthrip-m24", 120, Extender(id="e", device="ap-1", model="peltwick-e1"))
    (found,) = [f for f in _evaluated(slow, catalogue).findings if f.id.startswith("power-chain")]
    assert "passes 100\u00a0Mb/s and holds AP-1 back; the line has 200\u00a0Mb/s" in found.text
    wider = apply(slow, [put(Extender(id="e", device="ap-1", model="peltwick-e2"))])
    assert not [f for f in _evaluated(wider, catalogue).findings if f.id.startswith("power-chain")]


def test_a_link_slower_than_its_device_says_whether_it_is_noticed(catalogue: Catalogue) -> None:
    for line, worth in ((60, "only traffic inside notices"), (2000, "the internet is slower for it too")):
        slow = [f for f in _evaluated(_site(line, "dunthrip-s8"), catalogue).findings if f.id == "power-slow"]
        assert slow and worth in slow[0].text
