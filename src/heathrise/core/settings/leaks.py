"""Who reaches whom as cables and switches really are, against what the networks allow."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator

from ..base.wording import some
from ..context.findings import Cure, Finding, Place
from ..context.recording import recorder_link, recordings_of
from ..design import Device, Membership, Network, Switch, free_number, put
from .fabric import Fabric, Host
from .packet import verdict
from .port_findings import managed_in_place
from .reach import has_internet, reaches

_RULE = "hosts reach what their network may, over every cable and port"
_SOURCE = "IEEE 802.1Q"


def leak_findings(fabric: Fabric) -> Iterator[Finding]:
    """Yield hosts that land on another network than the one they are planned on, with whom they then reach;
    networks that do not come up to the router; cameras that do not come to their recorder."""
    networks = fabric.design.of(Network)
    stray: dict[tuple[str, str, tuple[str, ...]], list[Host]] = defaultdict(list)
    cut: dict[tuple[str, str], list[Host]] = defaultdict(list)
    for host in fabric.hosts:
        planned, landed, up = networks.get(host.network or ""), fabric.lands_on(host), fabric.ascent(host)
        if planned is None or up.stopped.endswith("has no port") or up.stopped.endswith("has no way up"):
            continue  # told where ports are
        if up.stopped:
            cut[planned.id, up.stopped].append(host)
        elif landed is not None and landed.vlan != planned.vlan:
            stray[planned.id, landed.id, up.flat].append(host)
    for (planned_id, landed_id, flat), hosts in stray.items():
        yield _strayed(fabric, networks[planned_id], networks[landed_id], flat, hosts)
    for (planned_id, stop), hosts in cut.items():
        yield _cut(fabric, networks[planned_id], stop, hosts)
    yield from _recorders(fabric)


def _strayed(
    fabric: Fabric, planned: Network, landed: Network, flat: tuple[str, ...], hosts: list[Host]
) -> Finding:
    others = [n for n in fabric.design.of(Network).values() if n.id != planned.id]
    more = [n.name for n in others if _allowed(landed, n) and not reaches(planned, n)]
    gains = f": they reach {some(more)}" if more else ""
    if has_internet(landed) and not has_internet(planned):
        gains += f"{', and' if more else ': they reach'} the internet"
    why = f"{some(flat)} tells no networks apart" if flat else "the port says so"
    names = list(dict.fromkeys(h.name for h in hosts))
    verb = "is" if len(names) == 1 else "are"
    return Finding(
        id=f"settings-stray-{planned.id}-{landed.id}"[:100]
        if not flat
        else f"settings-stray-{hosts[0].id}"[:100],
        stage="settings",
        severity="not_met" if gains else "near",
        text=f"{some(names)} {verb} planned on {planned.name} and land{'s' if verb == 'is' else ''} on "
        f"{landed.name}, as {why}{gains}.",
        places=tuple(_places(fabric, hosts)),
        rule=_RULE,
        source=_SOURCE,
        cures=tuple(_told_apart(fabric, hosts[0])),
    )


def _told_apart(fabric: Fabric, host: Host) -> Iterator[Cure]:
    """Offer managed switches in place of the plain ones on a host's way."""
    switches = fabric.design.of(Switch)
    at: str | None = next((h.element for h in fabric.ascent(host).hops if h.kind == "switch"), None)
    while at is not None:
        if at in fabric.unmanaged:
            for cure in managed_in_place(fabric.design, fabric.catalogue, switches[at]):
                yield cure.model_copy(update={"label": f"{cure.label}, {switches[at].name}"})
        above = fabric.up[at][1] if at in fabric.up else None
        at = above.switch if above is not None else None


def _allowed(one: Network, other: Network) -> bool:
    return one.id == other.id or reaches(one, other)


def _cut(fabric: Fabric, network: Network, stop: str, hosts: list[Host]) -> Finding:
    names = list(dict.fromkeys(h.name for h in hosts))
    return Finding(
        id=f"settings-cut-{network.id}-{hosts[0].id}"[:100],
        stage="settings",
        severity="not_met",
        text=f"{some(names)}: nothing of {network.name} comes to the router; {stop}.",
        places=tuple(_places(fabric, hosts)),
        rule=_RULE,
        source=_SOURCE,
        cures=tuple(_told_apart(fabric, hosts[0])),
    )


def _recorders(fabric: Fabric) -> Iterator[Finding]:
    """Yield recorders that their cameras do not come to."""
    number = 0
    for keeps in recordings_of(fabric.design, fabric.catalogue):
        number += keeps.device is None
        key = f"device:{keeps.device}" if keeps.device is not None else f"link:{recorder_link(number)}"
        recorder = fabric.by_id.get(key)
        cameras = [h for c in keeps.cameras if (h := fabric.by_id.get(f"device:{c}")) is not None]
        stopped = [(c, verdict(fabric, c, recorder)) for c in cameras] if recorder is not None else []
        lost = [(c, why) for c, why in stopped if why]
        if recorder is None or not lost:
            continue
        yield Finding(
            id=f"settings-recorder-{key}"[:100],
            stage="settings",
            severity="not_met",
            text=f"{some([c.name for c, _ in lost])} {'does' if len(lost) == 1 else 'do'} not come to "
            f"{recorder.name}: {lost[0][1]}.",
            places=tuple(_places(fabric, [c for c, _ in lost])),
            rule="cameras come to their recorder",
            source="practice",
            cures=tuple(_beside(fabric, recorder, lost[0][0])),
        )


def _beside(fabric: Fabric, recorder: Host, camera: Host) -> Iterator[Cure]:
    """Offer to put a recorder on the network of its cameras."""
    network = fabric.design.of(Network).get(camera.network or "")
    if recorder.device is None or network is None or recorder.network == network.id:
        return
    rows = fabric.design.of(Membership)
    mine = next((m for m in rows.values() if m.device == recorder.device and not m.given), None)
    key = mine.id if mine is not None else f"member-{free_number(rows, 'member')}"
    changed = Membership(id=key, network=network.id, device=recorder.device)
    yield Cure(label=f"Put {recorder.name} on {network.name}", changes=(put(changed),))


def _places(fabric: Fabric, hosts: list[Host]) -> Iterator[Place]:
    devices = fabric.design.of(Device)
    seen: set[str] = set()
    for host in hosts:
        key = host.device or host.switch or ""
        if key in seen:
            continue
        seen.add(key)
        if host.device is not None:
            device = devices[host.device]
            yield Place(kind="device", id=device.id, floor=device.floor, at=device.at)
        elif host.switch is not None:
            yield Place(kind="switch", id=host.switch)
