"""The settings chapter: networks, wireless names and switch ports, and what is wrong with them."""

from __future__ import annotations

from collections.abc import Collection, Iterator, Sequence

from ..base.bands import Band
from ..catalogue import Catalogue
from ..context.findings import Finding
from ..context.on_air import fullest_names
from ..context.run_decisions import said_over_air
from ..design import Design, Network
from .fabric import Fabric
from .membership import ends_of
from .portals import portal_sheets, voucher_sheets
from .sharing import service_sheets, shared_ports
from .sheet import (
    HostSheet,
    Plug,
    PortSheet,
    SettingsSheet,
    beacon_share,
    lowest_rate_mbps,
    mesh_reason,
    name_sheets,
    network_sheets,
    port_sheets,
)


class SettingsChapter(SettingsSheet):
    """The settings sheet with its findings."""

    findings: tuple[Finding, ...] = ()


def settings_sheet(
    design: Design, catalogue: Catalogue, plugs: Sequence[Plug], wired: Collection[str]
) -> SettingsSheet:
    """Return all that the controller will hold beside its radios.

    Args:
        plugs: who is in which port.
        wired: the devices that a run reaches.
    """
    return SettingsSheet(
        networks=network_sheets(design, catalogue.rules),
        names=name_sheets(design, catalogue),
        ports=shared_ports(design, catalogue, plugs, port_sheets(design, catalogue, plugs)),
        mesh=bool(said_over_air(design)),
        mesh_reason=mesh_reason(design, catalogue, wired),
        optimiser=design.site.channels_by == "controller",
        optimiser_reason=_OPTIMISER[design.site.channels_by],
        services=service_sheets(design, catalogue),
        portals=portal_sheets(design),
        vouchers=voucher_sheets(design, catalogue),
    )


_OPTIMISER = {
    "plan": "channels and power are by plan; look again after a measured scan",
    "controller": "it chooses within the fences; look after a week at what it did",
}


def fabric_of(
    design: Design, catalogue: Catalogue, plugs: Sequence[Plug], ports: Sequence[PortSheet]
) -> Fabric:
    """Return how frames go over ports that are set so."""
    return Fabric(design, catalogue, plugs, ports, ends_of(design, catalogue))


def with_hosts(sheet: SettingsSheet, fabric: Fabric) -> SettingsSheet:
    """Return a sheet with everybody who may be plugged in or joins on the air."""
    rows = tuple(
        HostSheet(
            id=host.id,
            name=host.name,
            device=host.device,
            switch=host.switch,
            network=host.network,
            lands=fabric.landing_id(host),
            stopped=fabric.ascent(host).stopped,
            whose=host.whose,
            reason=host.reason,
        )
        for host in fabric.hosts
    )
    return sheet.model_copy(update={"hosts": rows})


def beacon_findings(design: Design, catalogue: Catalogue, band: Band, sharing: int) -> Iterator[Finding]:
    """Yield the finding that beacons take too much air on a band, where so many share it."""
    rules, networks = catalogue.rules, design.of(Network)
    names = fullest_names(design, catalogue, band)
    rates = [lowest_rate_mbps(rules, networks[n.network], n) for n in names]
    share = sum(beacon_share(rules, 1, sharing, rate) for rate in rates)
    limit = rules["settings.beacon_limit_share"]
    if share > limit:
        yield Finding(
            id="settings-beacons" if band == "2.4" else f"settings-beacons-{band}",
            stage="settings",
            severity="near",
            text=f"Beacons take {share:.0%} of the air on {band} GHz: {len(names)} names on "
            f"{sharing} access points that share a channel.",
            figure=round(100 * share, 1),
            limit=100 * limit,
            unit="% of the air",
            rule="beacons leave the air to the rest",
            source=rules.source("settings.beacon_share.12"),
            used=rules.used("settings.beacon_limit_share"),
        )
