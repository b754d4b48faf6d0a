"""The hand-over for the next technician: sheets to scale, racks, ports, labels, tests, settings."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from markupsafe import Markup

from ...core.base.wording import some, speed
from ...core.design import Device, EquipmentRoom, Floor, Network, Switch
from ...core.diagram import Reading, as_it_came
from ...core.handover import Handover
from ...core.rack import PortUse
from ...core.records import SeenPort
from ...core.settings import NameSheet
from ...core.views.acceptance import cable_of
from ...core.views.handover import Observed
from ..sheets.paper import GORSE, GRANITE, INK, MOSS, PAPER, RUST, text
from .diagram import network_drawn
from .handover import open_for
from .head import NO_HEAD, Head
from .racks import elevations
from .render import Papers, html_of, pdf_of, style
from .sheets import Drawn, in_template

_READINGS: tuple[Reading, ...] = ("cables", "networks")
_PORT_MM, _GAP_MM, _ROWS = 6.6, 0.8, 2
_TONES = {"met": MOSS, "near": GORSE, "not_met": RUST, "unread": INK}
_TESTED = {"untested": "", "met": "passed", "near": "look again", "not_met": "failed"}
_DASH = "–"


@dataclass(frozen=True)
class History:
    """A line of the journal: revision, when, by whom, what."""

    revision: int
    on: str
    by: str
    what: str


def technician_pdf(
    drawn: Drawn, handover: Handover, seen: Observed, history: Sequence[History], head: Head = NO_HEAD
) -> bytes:
    """Return the technician's hand-over as PDF, each storey on a page of its own to scale."""
    site, papers = drawn.design.site, Papers(drawn.design.site.units)
    paper = "Letter" if site.units == "imperial" else "A4"
    as_built = replace(drawn, diagram=as_it_came(drawn.diagram, seen.ports))
    network = network_drawn(as_built).named()
    pages = [page for reading in _READINGS for page in network.pages(reading, paper)]
    pages += drawn.land_pages(paper)
    pages += [page for floor in drawn.floors() for page in drawn.pages(floor, paper)]
    html = html_of(
        "technician.html",
        style=style(),
        size=papers.size,
        head=head,
        name=drawn.name,
        revision=drawn.revision,
        today=drawn.on.isoformat(),
        unsettled=open_for(handover, papers),
        built=[
            {"name": d.name, "what": papers.words(d.what), "floor": _floor(drawn, d.floor)}
            for d in handover.built
        ],
        agreed=handover.agreed_revision,
        left=[
            {"name": row.name, "ports": row.ports, "powered": row.powered, "watts": f"{row.watts:g}"}
            for row in handover.left
        ],
        spare_cables=handover.spare_cables,
        rooms=[{"name": r.name, "floor": r.floor, "says": r.says, "tone": r.verdict} for r in handover.rooms],
        racks=list(_racks(drawn, seen, papers)),
        cables=list(_cables(drawn, seen, papers)),
        fibres=list(_fibres(drawn, papers)),
        networks=list(_networks(drawn)),
        names=list(_names(drawn)),
        radios=list(_radios(drawn)),
        snags=seen.snags,
        history=history,
        pages=in_template(pages),
    )
    return pdf_of(html)


def _floor(drawn: Drawn, floor: str | None) -> str:
    row = drawn.design.of(Floor).get(floor or "")
    return row.name if row is not None else ""


def _racks(drawn: Drawn, seen: Observed, papers: Papers) -> Iterator[dict[str, object]]:
    """Yield the racks: each switch as its front looks, and what is in which port."""
    read = {(p.switch, p.port): p for p in seen.ports}
    settings = drawn.evaluation.settings
    profiles = {(p.switch, p.port): p for p in settings.ports} if settings is not None else {}
    switches = drawn.design.of(Switch)
    labels = drawn.label_by_cable()
    built = {row["room"]: row for row in elevations(drawn, papers)}
    for room in drawn.design.of(EquipmentRoom).values():
        rows = []
        for switch in (s for s in switches.values() if s.equipment_room == room.id):
            ports = [p for p in drawn.evaluation.power.ports if p.switch == switch.id]
            table = []
            for port in (p for p in ports if p.link is not None or p.uplink):
                profile = profiles.get((switch.id, port.port))
                row = read.get((switch.id, port.port))
                tagged = ", ".join(map(str, profile.tagged_vlans)) if profile is not None else ""
                table.append(
                    {
                        "port": port.port,
                        "name": port.name or "",
                        "label": labels.get((port.device or "", cable_of(port)), ""),
                        "planned": speed(row.planned_mbps) if row is not None else "",
                        "came": _came(row),
                        "tone": row.verdict if row is not None else "",
                        "power": f"{row.expected_w:.1f}" if row is not None and row.expected_w else "",
                        "drawn": _drawn_w(row),
                        "untagged": (profile.untagged_vlan or "") if profile is not None else "",
                        "tagged": tagged,
                    }
                )
            rows.append(
                {
                    "name": switch.name,
                    "model": drawn.catalogue.switches[switch.model].label,
                    "front": Markup(_front(ports, read)),
                    "ports": table,
                }
            )
        if rows:
            yield {
                "name": room.name,
                "floor": _floor(drawn, room.floor),
                "switches": rows,
                "elevation": built.get(room.id),
            }


def _came(row: SeenPort | None) -> str:
    if row is None or row.last is None or row.last.mbps is None:
        return _DASH
    return speed(row.last.mbps) if row.last.mbps else "no link"


def _drawn_w(row: SeenPort | None) -> str:
    if row is None or row.last is None or row.last.watts is None:
        return _DASH if row is not None and row.expected_w is not None else ""
    return f"{row.last.watts:g}"


def _front(ports: Sequence[PortUse], read: dict[tuple[str, int], SeenPort]) -> str:
    """Return the front of a switch, its ports two above one another, as SVG in mm."""
    columns = -(-len(ports) // _ROWS)
    step = _PORT_MM + _GAP_MM
    wide, high = columns * step + 3, _ROWS * step + 2.4
    parts = [
        f'<rect x="0.2" y="0.2" width="{wide - 0.4:.2f}" height="{high - 0.4:.2f}" rx="0.6" '
        f'fill="none" stroke="{INK}" stroke-width="0.35"/>'
    ]
    for k, port in enumerate(ports):
        x, y = 1.5 + (k // _ROWS) * step, 1.4 + (k % _ROWS) * step
        row = read.get((port.switch, port.port))
        taken = port.link is not None or port.uplink
        tone = _TONES[row.verdict] if row is not None else GRANITE
        fill = tone if taken else PAPER
        parts.append(
            f'<rect x="{x:.2f}" y="{y:.2f}" width="{_PORT_MM}" height="{_PORT_MM}" rx="0.4" '
            f'fill="{fill}" fill-opacity="{0.16 if taken else 1}" stroke="{tone}" '
            f'stroke-width="{0.5 if taken else 0.2}"/>'
            + text(x + _PORT_MM / 2, y + 3.0, str(port.port), 2.2, INK, 600)
        )
        if port.feeds:
            parts.append(
                f'<path d="M{x + 3.5:.2f} {y + 3.6:.2f}l-1 1.5h1.2l-1 1.3" fill="none" '
                f'stroke="{INK}" stroke-width="0.35"/>'
            )
        elif port.cage:
            parts.append(text(x + _PORT_MM / 2, y + 5.8, "cage", 1.7, GRANITE, 400))
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:.2f}mm" height="{high:.2f}mm" '
        f'viewBox="0 0 {wide:.2f} {high:.2f}" font-family="IBM Plex Sans Condensed">'
        f"{''.join(parts)}</svg>"
    )


def _cables(drawn: Drawn, seen: Observed, papers: Papers) -> Iterator[dict[str, str]]:
    tested = {(c.device, c.cable): c for c in seen.cables}
    devices = {r.id: r.device for r in drawn.evaluation.runs}
    links = {k.id: k for k in drawn.evaluation.cable.links}
    for label in drawn.labels:
        row = tested.get((devices.get(label.link, ""), label.cable))
        said = row.last if row is not None else None
        yield {
            "label": label.text,
            "name": label.name,
            "rack": label.rack,
            "panel": f"{label.panel}-{label.port:02d}",
            "category": getattr(links[label.link], "category", None) or links[label.link].medium,
            "planned": papers.length(links[label.link].fixed_m),
            "measured": papers.length(said.length_m) if said and said.length_m else _DASH,
            "result": _TESTED[row.verdict] if row is not None and row.last is not None else _DASH,
            "tone": row.verdict if row is not None and row.last is not None else "",
            "reason": papers.words(row.reason)
            if row is not None and row.verdict in ("near", "not_met")
            else "",
        }


def _fibres(drawn: Drawn, papers: Papers) -> Iterator[dict[str, object]]:
    for up in (*drawn.evaluation.uplinks, *drawn.evaluation.runs):
        if up.fibre is not None and up.verdict != "no_way":
            sheet = up.fibre
            yield {
                "name": up.name,
                "kind": drawn.catalogue.fibres[up.category].label,
                "length": papers.length(up.fixed_m),
                "loss": f"{sheet.loss_db:g} of {sheet.budget_db:g}",
                "strands": f"{sheet.strands}: {sheet.used} used, {sheet.free} ready, {sheet.dark} dark",
            }


def _networks(drawn: Drawn) -> Iterator[dict[str, object]]:
    sheet = drawn.evaluation.settings
    names = {n.id: n.name for n in drawn.design.of(Network).values()}
    for n in sheet.networks if sheet is not None else ():
        yield {
            "name": n.name,
            "vlan": n.vlan,
            "subnet": n.subnet,
            "gateway": n.gateway,
            "pool": f"{n.pool_first} to {n.pool_last}" if n.pool_first else "",
            "apart": "yes" if n.client_isolation else "no",
            "limit": f"{n.limit_all_mbps:g} Mb/s together" if n.limit_all_mbps is not None else "",
            "reaches": ", ".join(names[r] for r in n.reaches if r != n.id) or _DASH,
        }
    for s in sheet.services if sheet is not None else ():
        apart = dict.fromkeys(("subnet", "gateway", "pool", "limit", "reaches"), _DASH)
        yield {"name": s.name, "vlan": s.vlan, "apart": "yes", **apart}


def _names(drawn: Drawn) -> Iterator[dict[str, object]]:
    sheet = drawn.evaluation.settings
    for n in sheet.names if sheet is not None else ():
        yield {
            "ssid": n.ssid,
            "network": n.network,
            "vlan": n.vlan,
            "bands": ", ".join(n.bands),
            "security": n.security.replace("_", " + "),
            "roaming": "on" if n.fast_transition else "off",
            "dtim": n.dtim,
            "rate": n.lowest_rate_mbps,
            "on": _on(drawn, n),
        }


def _on(drawn: Drawn, name: NameSheet) -> str:
    """Return where and when a name is on the air, and what it gives at most."""
    devices = drawn.design.of(Device)
    where = "everywhere" if name.everywhere else some([devices[k].name for k in name.access_points])
    limit = f", {name.limit_mbps:g} Mb/s each" if name.limit_mbps is not None else ""
    return f"{where}{', ' if name.hours else ''}{name.hours}{limit}"


def _radios(drawn: Drawn) -> Iterator[dict[str, object]]:
    for r in drawn.evaluation.signal.radios or ():
        yield {
            "name": r.name,
            "band": r.band,
            "channel": r.channel if r.on else "off",
            "width": r.width_mhz if r.on else "",
            "power": f"{r.power_dbm:g}" if r.on else "",
        }
