"""Networks, names and fibre to devices on the technician's paper, opened again."""

from __future__ import annotations

from datetime import date

import pypdfium2

from heathrise.core.catalogue import Catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Change, Design, Device, Membership, Network, Run, WirelessName, apply, put
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.records import SnagRecord, cables_as_tested, ports_as_seen, snags_as_left
from heathrise.core.views.acceptance import planned_cables, planned_ports
from heathrise.core.views.handover import Observed, handover_of
from heathrise.core.views.work_list import steps_of
from heathrise.formats.papers import drawn_of, technician_pdf

_TODAY = date(2026, 11, 25)


def _paper(design: Design, catalogue: Catalogue, *changes: Change) -> str:
    plan = Plan(apply(design, list(changes)), catalogue, on=_TODAY)
    rules, none = catalogue.rules, list[SnagRecord]()
    seen = Observed(
        cables=cables_as_tested(rules, planned_cables(plan), ()),
        ports=ports_as_seen(rules, planned_ports(plan), ()),
        snags=snags_as_left(none, _TODAY),
        steps=steps_of(plan),
    )
    pdf = technician_pdf(drawn_of("Home", 1, plan), handover_of(plan, seen), seen, ())
    document = pypdfium2.PdfDocument(pdf)
    return " ".join(" ".join(page.get_textpage().get_text_bounded().split()) for page in document)


def test_a_name_says_where_and_when_it_is_on(home: Design, catalogue: Catalogue) -> None:
    name = next(iter(home.of(WirelessName).values()))
    point = next(d for d in home.of(Device).values() if d.kind == "access_point")
    assert "everywhere" in _paper(home, catalogue)
    more = {"access_points": (point.id,), "from_hour": "08:00", "to_hour": "18:00", "limit_mbps": 5.0}
    text = _paper(home, catalogue, put(name.model_copy(update=more)))
    assert f"{point.name}, 08:00 to 18:00, 5 Mb/s each" in text


def test_fibre_to_a_device_has_its_row_with_loss_and_strands(home: Design, catalogue: Catalogue) -> None:
    decided = {r.device for r in home.of(Run).values()}
    free = (d for d in home.of(Device).values() if d.state == "new" and d.id not in decided)
    point = next(d for d in free if d.kind == "access_point")
    lit = put(Run(id="r-lit", device=point.id, medium="fibre"))
    text = _paper(home, catalogue, lit)
    plan = Plan(apply(home, [lit]), catalogue, on=_TODAY)
    run = next(r for r in evaluate(plan).runs if r.device == point.id)
    assert run.fibre is not None
    assert f"{run.fibre.loss_db:g} of {run.fibre.budget_db:g}" in text
    assert "12: 2 used, 2 ready, 8 dark" in text and "never look into a fibre" in text


def test_a_network_by_hand_stands_at_its_port(home: Design, catalogue: Catalogue) -> None:
    guest = next(n for n in home.of(Network).values() if n.purpose == "guest")
    outlet = next(d for d in home.of(Device).values() if d.kind == "outlet")
    said = put(Membership(id="m", network=guest.id, device=outlet.id))
    plan = Plan(apply(home, [said]), catalogue, on=_TODAY)
    settings = evaluate(plan, wait=True).settings
    assert settings is not None
    mine = [p for p in settings.ports if p.name.startswith(outlet.name) and p.whose == "person"]
    assert [p.untagged_vlan for p in mine] in ([], [guest.vlan])  # where it has a port
    text = _paper(home, catalogue, said)
    assert guest.name in text and str(guest.vlan) in text
