"""The kinds of device: one record each, which everything else asks for what a kind can do.

A kind's gear lies in ``data/gear/<shelf>.yaml``; the browser draws its ``mark``. Nothing outside
this module compares a device's kind with a name.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal

from ..base.frozen import Frozen, Strict
from ..base.mounts import Mount


class PortProfile(Frozen):
    """What the switch port of a kind carries.

    ``untagged`` is the purpose of its own network, the main one where none is planned for it;
    ``tagged`` the networks that come beside it. ``alone`` asks that its own network is planned.
    """

    untagged: Literal["main", "cameras", "devices", "management"]
    tagged: Literal["none", "names", "all"] = "none"
    alone: bool = False
    words: str


SHED_LAST = 9  # rank of what goes dark last


class Role(Strict):
    """One kind of device.

    ``height_m`` is where it is planned at, None for at the ceiling. ``cables`` says how many go
    to it: as the site has it for access points, one for each of its sockets, or one; ``links``
    how many of those ask for a port. ``stands`` says whether it must be made for where it is.
    ``leads_out`` is for what the line comes in at: the first switch's way up ends in it.
    ``passes_on`` is for what begins cables anew for others: runs may start at its ports.
    ``sheds`` ranks what goes dark first when a rack runs on its battery; ``SHED_LAST`` goes last.
    ``stands_free`` is for what is put down and not screwed on; ``films`` is for what is recorded,
    ``records`` for what keeps it. ``racked`` is what kind of thing it is where it stands in a rack.
    """

    kind: str
    name: str
    shelf: str
    mark: str
    key: str
    hint: str
    stem: str
    prefix: str
    mount: Mount
    height_m: float | None = None
    aimed: bool = False
    stands: Literal["anywhere", "as_made"] = "as_made"
    cables: Literal["policy", "sockets", "one"] = "one"
    links: Literal["one", "every_cable"] = "one"
    leads_out: bool = False
    passes_on: bool = False
    sheds: int = 5
    stands_free: bool = False
    films: bool = False
    records: bool = False
    racked: Literal["router", "recorder", "storage"] = "router"
    profile: PortProfile


_NAMES = PortProfile(
    untagged="management", tagged="names", words="management untagged, the names' networks tagged"
)

# In the order in which they are given ports.
ROLES = (
    Role(
        kind="access_point",
        name="Access point",
        shelf="access_points",
        mark="trig",
        key="a",
        hint="press where it hangs",
        stem="ap",
        prefix="AP",
        mount="ceiling",
        cables="policy",
        profile=_NAMES,
    ),
    Role(
        kind="wall_plate",
        sheds=3,
        name="Wall plate",
        shelf="wall_plates",
        mark="cairn",
        key="p",
        hint="press on the wall where it goes",
        stem="wp",
        prefix="WP",
        mount="wall",
        height_m=0.4,
        aimed=True,
        profile=_NAMES,
    ),
    Role(
        kind="camera",
        sheds=1,
        name="Camera",
        shelf="cameras",
        mark="lookout",
        key="c",
        hint="press where it is mounted",
        stem="cam",
        prefix="CAM",
        mount="wall",
        height_m=2.8,
        aimed=True,
        films=True,
        profile=PortProfile(untagged="cameras", alone=True, words="its own network only"),
    ),
    Role(
        kind="doorbell",
        sheds=2,
        name="Doorbell",
        shelf="doorbells",
        mark="knocker",
        key="j",
        hint="press beside the door, where it is rung",
        stem="bell",
        prefix="BELL",
        mount="wall",
        height_m=1.4,
        aimed=True,
        profile=PortProfile(untagged="devices", alone=True, words="the devices' network only"),
    ),
    Role(
        kind="door_entry",
        sheds=7,
        name="Door entry",
        shelf="door_entries",
        mark="wicket",
        key="y",
        hint="press beside the door that it opens",
        stem="entry",
        prefix="ENTRY",
        mount="wall",
        height_m=1.4,
        aimed=True,
        profile=PortProfile(untagged="devices", alone=True, words="the devices' network only"),
    ),
    Role(
        kind="sensor_gateway",
        sheds=4,
        name="Sensor gateway",
        shelf="sensor_gateways",
        mark="beacon",
        key="g",
        hint="press where it hangs, amid its sensors",
        stem="gw",
        prefix="GW",
        mount="wall",
        height_m=2.2,
        profile=PortProfile(untagged="devices", alone=True, words="the devices' network only"),
    ),
    Role(
        kind="relay",
        sheds=8,
        name="Extender box",
        shelf="relays",
        mark="ford",
        key="x",
        hint="press where it is mounted, within reach of a rack and of what it feeds",
        stem="ext",
        prefix="EXT",
        mount="wall",
        height_m=2.4,
        passes_on=True,
        profile=PortProfile(untagged="main", words="what its devices need, as it tells nothing apart"),
    ),
    Role(
        kind="storage",
        sheds=6,
        name="Storage",
        shelf="storage",
        mark="stack",
        key="q",
        hint="press where it stands",
        stem="store",
        prefix="STORE",
        mount="desk",
        height_m=0.8,
        stands="anywhere",
        stands_free=True,
        racked="storage",
        profile=PortProfile(untagged="main", words="main network, nothing tagged"),
    ),
    Role(
        kind="recorder",
        sheds=6,
        name="Recorder",
        shelf="recorders",
        mark="ledger",
        key="h",
        hint="press where it stands, if that is not the rack",
        stem="rec",
        prefix="REC",
        mount="desk",
        height_m=0.8,
        stands="anywhere",
        stands_free=True,
        records=True,
        racked="recorder",
        profile=PortProfile(untagged="cameras", alone=True, words="the cameras' network only"),
    ),
    Role(
        kind="outlet",
        name="Outlet",
        shelf="outlets",
        mark="stile",
        key="u",
        hint="press where the outlet goes",
        stem="out",
        prefix="Outlet",
        mount="wall",
        height_m=0.3,
        aimed=True,
        stands="anywhere",
        cables="sockets",
        links="every_cable",
        profile=PortProfile(untagged="main", words="main network, nothing tagged"),
    ),
    Role(
        kind="router",
        sheds=9,
        name="Router",
        shelf="routers",
        mark="bridge",
        key="l",
        hint="press where the line comes in",
        stem="router",
        prefix="Router",
        mount="wall",
        height_m=1.2,
        leads_out=True,
        profile=PortProfile(
            untagged="management", tagged="all", words="management untagged, all networks tagged"
        ),
    ),
)


def by_kind(roles: Iterable[Role]) -> dict[str, Role]:
    """Return roles by kind.

    Raises:
        ValueError: a kind, a shelf or a key stands twice.
    """
    found: dict[str, Role] = {}
    taken: set[str] = set()
    for role in roles:
        mine = {f"kind {role.kind}", f"shelf {role.shelf}", f"key {role.key}", f"stem {role.stem}"}
        if twice := mine & taken:
            raise ValueError(f"two kinds of device have the {', '.join(sorted(twice))}")
        taken |= mine
        found[role.kind] = role
    return found
