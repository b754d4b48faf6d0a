"""What old cable carries beside the networks, as the switches at its ends are set."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from ..base.wording import some
from ..catalogue import Catalogue
from ..context.one_cable import CARRIES, SAID, Service, SharedCable, service_vlans, shared_cable
from ..design import Design, OldCable, Switch
from .sheet import Plug, PortSheet, ServiceSheet


def shared_ports(
    design: Design, catalogue: Catalogue, plugs: Sequence[Plug], sheets: Sequence[PortSheet]
) -> tuple[PortSheet, ...]:
    """Return port sheets with what shares a cable with the networks: alone at the port where it comes
    in and where it goes out, tagged on the ways between.

    Args:
        sheets: those of the plugs first, in their order.
    """
    shared = shared_cable(design, catalogue)
    if shared is None or not shared.links:
        return tuple(sheets)
    own = service_vlans(design, catalogue.rules, shared)
    ports = [_port(design, p, s, own, shared) for p, s in zip(plugs, sheets, strict=False)]
    return (*ports, *sheets[len(plugs) :])


def _port(
    design: Design, plug: Plug, sheet: PortSheet, own: Mapping[Service, int], shared: SharedCable
) -> PortSheet:
    switches = design.of(Switch)
    room = switches[plug.switch].equipment_room
    up_to_line = plug.uplink and plug.uplink_to is None and room == shared.entry
    service = "line" if up_to_line else CARRIES.get(plug.link or "")
    if service is not None and service in own:
        words = f"{SAID[service]} alone, tagged on the way to the other end"
        update = {"enabled": True, "untagged_vlan": own[service], "tagged_vlans": (), "reason": words}
        return sheet.model_copy(update=update)
    if plug.uplink and room in shared.ends and plug.uplink_to in switches:
        both = tuple(sorted({*sheet.tagged_vlans, *own.values()}))
        beside = " and ".join(SAID[s] for s in own)
        return sheet.model_copy(update={"tagged_vlans": both, "reason": f"{sheet.reason}, and {beside}"})
    return sheet


def service_sheets(design: Design, catalogue: Catalogue) -> tuple[ServiceSheet, ...]:
    """Return what goes over old cable beside the networks."""
    shared = shared_cable(design, catalogue)
    if shared is None or not shared.links:
        return ()
    cables = some([design.of(OldCable)[c].name for c in shared.cables])
    return tuple(
        ServiceSheet(
            service=service,
            name=SAID[service].removeprefix("the ").capitalize(),
            vlan=vlan,
            reason=f"shares {cables} with the networks, so it is tagged there and nowhere else",
        )
        for service, vlan in service_vlans(design, catalogue.rules, shared).items()
    )
