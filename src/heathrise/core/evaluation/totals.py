"""The line of figures under the sheet."""

from __future__ import annotations

from collections.abc import Sequence

from pydantic import Field

from ..base.frozen import Frozen
from ..cabling import CableChapter
from ..catalogue import Catalogue
from ..context.findings import Finding
from ..design import Design, Device
from ..rack import PowerPlan
from ..signal import RoomVerdict


class Totals(Frozen):
    """Counts, metres, watts; what it costs is the order's."""

    access_points: int = Field(0, description="devices that clients hear")
    rooms_needed: int = Field(0, description="rooms whose use asks for signal")
    rooms_met: int = Field(0, description="of those, rooms that meet all of their use")
    rooms_first: int = Field(0, description="of those, rooms with their first access point")
    rooms_second_needed: int = Field(0, description="rooms whose use asks for a second access point")
    rooms_second: int = Field(0, description="of those, rooms that have it")
    cable_m: float = Field(0.0, description="copper as installed, all cables, m")
    fibre_m: float = Field(0.0, description="fibre between racks and to devices, m")
    expected_w: float = Field(0.0, description="watts expected at the ports")
    rated_w: float = Field(0.0, description="watts at the ports at rated draw")
    reserved_w: float = Field(0.0, description="watts reserved by class")
    counted_w: float = Field(
        0.0, description="watts that count against the budgets, each switch by the way it allocates"
    )
    budget_w: float = Field(0.0, description="watts of all switches")
    powered_devices: int = Field(0, description="devices that a cable powers")
    powered_ports: int = Field(0, description="ports that give power")
    powered_ports_used: int = Field(0, description="of those, ports that power a device")
    ports: int = Field(0, description="ports of all switches")
    ports_used: int = Field(0, description="ports with a link, those kept for ways up included")
    currency: str
    not_met: int = Field(0, description="findings that are not met")
    near: int = Field(0, description="findings near their limit")
    notes: int = Field(0, description="findings to know")


def totals_of(
    design: Design,
    catalogue: Catalogue,
    rooms: Sequence[RoomVerdict],
    links: CableChapter,
    power: PowerPlan,
    findings: Sequence[Finding],
) -> Totals:
    """Return the totals."""
    needed = [r for r in rooms if r.verdict != "not_needed"]
    calls = [r for r in needed if r.share_second is not None]
    met_share = catalogue.rules["signal.met_share"]
    copper = [link for link in links.links if link.medium == "copper"]
    fibre = [link for link in links.links if link.medium == "fibre"]
    severities = [f.severity for f in findings]
    return Totals(
        access_points=sum(d.model in catalogue.airs for d in design.of(Device).values()),
        rooms_needed=len(needed),
        rooms_met=sum(r.verdict == "met" for r in needed),
        rooms_first=sum((r.share_first or 0) >= met_share for r in needed),
        rooms_second_needed=len(calls),
        rooms_second=sum((r.share_second or 0) >= met_share for r in calls),
        cable_m=round(sum(link.total_m for link in copper), 1),
        fibre_m=round(sum(link.total_m for link in fibre), 1),
        expected_w=round(sum(s.expected_w for s in power.switches), 1),
        rated_w=round(sum(s.rated_w for s in power.switches), 1),
        reserved_w=round(sum(s.reserved_w for s in power.switches), 1),
        counted_w=round(sum(s.counted_w for s in power.switches), 1),
        budget_w=sum(s.budget_w for s in power.switches),
        powered_devices=len(power.devices),
        powered_ports=sum(s.powered_ports for s in power.switches),
        powered_ports_used=sum(s.powered_used for s in power.switches),
        ports=sum(s.ports for s in power.switches),
        ports_used=sum(s.ports_used for s in power.switches),
        currency=design.site.currency,
        not_met=severities.count("not_met"),
        near=severities.count("near"),
        notes=severities.count("note"),
    )
