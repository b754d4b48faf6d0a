"""The settings on paper against every setting, read back from what is printed."""

from __future__ import annotations

import re

import pypdfium2
import pytest

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Device, Network, Switch
from heathrise.core.views.held import held_settings, said_by_name, setting_names
from heathrise.core.views.settings_paper import settings_on_paper
from heathrise.demo import SITES
from heathrise.formats.papers.plain import settings as printed


@pytest.fixture(params=[s.key for s in SITES])
def plan(request: pytest.FixtureRequest) -> Plan:
    return Plan(next(s for s in SITES if s.key == request.param).make(), load_catalogue())


def test_every_setting_stands_on_the_paper_once_and_nothing_else(plan: Plan) -> None:
    """Rows that were put together are taken apart again, by what is printed alone."""
    names, parts = setting_names(plan), settings_on_paper(plan)
    rows = held_settings(plan).settings
    plain = [r for r in rows if not r.target.startswith("device/")]
    told = [r for p in parts for r in p.rows if not r.on]
    wanted = [(r.label, said_by_name(names, r.value), r.reason, r.whose) for r in plain]
    assert sorted((r.label, r.value, r.reason, r.whose) for r in told) == sorted(wanted)
    gear = [r for r in rows if r.target.startswith("device/") and not r.key.startswith("port.")]
    apart = []
    for row in (r for p in parts for r in p.rows if r.on):
        many = re.fullmatch(r"(?:all )?(\d+)(?:: (.*))?", row.on)
        count = int(many[1]) if many else 1
        on = many[2].split(", ") if many and many[2] else [row.on] if not many else []
        assert not on or len(on) == count
        mine = [r for r in gear if r.label == row.label and (not on or r.on in on)]
        same = [r for r in mine if (said_by_name(names, r.value), r.reason) == (row.value, row.reason)]
        assert len(same) == count
        apart += same
    assert len(apart) == len([r for r in gear if r.key != "label"])


def test_each_port_is_told_as_it_is_set(plan: Plan) -> None:
    held = {(r.target, r.key): r.value for r in held_settings(plan).settings}
    vlans = {f"{n.name} ({n.vlan})": n.vlan for n in plan.design.of(Network).values()}
    gear = {g.name: g.id for cls in (Switch, Device) for g in plan.design.of(cls).values()}  # type: ignore[attr-defined]
    seen = 0
    for part in (p for p in settings_on_paper(plan) if p.ports):
        target = f"device/{gear[part.title.removeprefix('Ports of ')]}"
        for row in part.ports:
            ends = [int(n) for n in row.numbers.split(" to ")]
            for number in range(ends[0], ends[-1] + 1):
                seen += 1
                port = {
                    k: held[target, f"port.{number}.{k}"]
                    for k in ("label", "on", "untagged", "tagged", "power")
                }
                assert row.name == (port["label"] or "")
                assert (row.value == "off") == (port["on"] is False)
                if row.value != "off":
                    words = row.value.split("; ")
                    assert vlans.get(words[0].removeprefix("untagged ")) == port["untagged"]
                    tagged = next(
                        (w.removeprefix("tagged ").split(", ") for w in words if w.startswith("tagged")), []
                    )
                    assert tuple(vlans[t] for t in tagged) == tuple(port["tagged"] or ())
                    assert ("gives power" in words) == bool(port["power"])
    numbered = (re.match(r"port\.(\d+)\.", key) for _, key in held)
    assert seen == len({(t, n[1]) for (t, _), n in zip(held, numbered, strict=True) if n})


def test_what_is_printed_is_what_was_put_together_and_holds_no_key() -> None:
    plan = Plan(SITES[0].make(), load_catalogue())
    paper = pypdfium2.PdfDocument(printed("Larkmere", plan))
    text = re.sub(r"\s+", "", " ".join(p.get_textpage().get_text_bounded() for p in paper))
    for part in settings_on_paper(plan):
        assert re.sub(r"\s+", "", part.title) in text
        for row in part.rows:
            assert re.sub(r"\s+", "", row.reason) in text
    assert f"{len(held_settings(plan).settings)}settings" in text and "P:" not in text
