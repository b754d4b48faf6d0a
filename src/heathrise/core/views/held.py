"""Every setting that a controller will hold, one by one: its value, the reason, and whose it is."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import ClassVar, TypeVar

from pydantic import Field

from ..base.frozen import Frozen
from ..base.memo import IdentityMemo
from ..context.on_air import Broadcast
from ..context.plan import Plan
from ..context.practice import SaidBy, practice_of, whose_figure, whose_site
from ..controlled import Value
from ..design import Device, Network, Switch, VoucherSet, WirelessName
from ..evaluation.evaluate import Evaluation, evaluate
from ..settings import NameSheet, NetworkSheet, PortalSheet, PortSheet, SettingsChapter, VoucherSheet
from ..signal import RadioSheet

T = TypeVar("T")

SITE = "site"
NONE = "none"
_HAND = "by hand"
_ORIGIN: dict[str, SaidBy] = {"plan": "plan", "house rule": "profile", "person": "person"}
_MEMBER: dict[str, SaidBy] = {
    "person": "person",
    "kind": "plan",
    "client": "brief",
    "room": "brief",
    "plan": "plan",
}
_UPDATES = {
    "quiet_hour": "at the site's quiet hour, {hour}",
    "nightly": "every night at {hour}",
    "by_hand": "by hand, after reading the notes",
}


class Setting(Frozen):
    """One value that a controller holds. ``target`` is what it belongs to: ``site``, ``network/..``,
    ``name/..``, ``vouchers/..`` or ``device/..`` with the id of the element."""

    KEY: ClassVar = ("target", "key")

    target: str
    key: str = Field(description="what of it, such as ``dtim`` or ``port.3.untagged``")
    on: str = Field(description="what it belongs to in words")
    label: str = Field(description="the key in words")
    value: Value
    reason: str
    whose: SaidBy


class HeldSettings(Frozen):
    """All settings of a plan, in the order in which they stand on paper."""

    practice: str = Field(description="name of the practice profile")
    settings: tuple[Setting, ...]
    by: dict[SaidBy, int] = Field(description="how many are whose")


_PAGE = {"way": "how one comes past", "hours": "hours until it is shown again", "kept_days": "days kept"}
_WORDS = {
    "on": "on",
    "ssid": "name on the air",
    "untagged": "untagged network",
    "tagged": "tagged networks",
    "vlan": "VLAN",
    "dtim": "DTIM",
    "width_mhz": "width in MHz",
    "power_dbm": "power in dBm",
    "least_dbm": "least power in dBm",
    "most_dbm": "most power in dBm",
    "limit_mbps": "most for a client, Mb/s",
    "limit_all_mbps": "most for all of it together, Mb/s",
    "lowest_rate_mbps": "lowest rate, Mb/s",
    "lease_hours": "lease in hours",
    "tuned": "tuned by the controller",
    "label": "name",
    "power": "power over Ethernet",
}


def in_words(key: str) -> str:
    """Return a setting's key as one says it: ``radio.2.4.channel`` is the channel on 2.4 GHz."""
    head, *rest = re.split(r"\.(?!\d)", key)
    last = rest[-1] if rest else head
    words = _WORDS.get(last, last.replace("_", " "))
    if not rest:
        return words
    kind, _, number = head.partition(".")
    if kind == "page":
        return f"page for guests: {_PAGE.get(last, words)}"
    if kind == "port":
        return f"port {number}: {words}" if number else f"ports: {words}"
    return f"{'radio' if kind == 'radio' else 'optimiser'} on {number} GHz: {words}"


def said(value: Value) -> str:
    """Return a setting's value as one reads it."""
    if isinstance(value, bool):
        return "on" if value else "off"
    if isinstance(value, tuple):
        return ", ".join(map(str, value)) or NONE
    if isinstance(value, float):
        return f"{value:g}"
    return NONE if value is None or value == "" else str(value).replace("_", " ")


def setting_names(plan: Plan) -> dict[str, str]:
    """Return by id what networks and devices are called, which settings name."""
    names = {n.id: n.name for n in plan.design.of(Network).values()}
    return names | {d.id: d.name for d in plan.design.of(Device).values()}


def said_by_name(names: Mapping[str, str], value: Value) -> str:
    """Return a setting's value as one reads it, networks and devices by their names."""
    if isinstance(value, tuple):
        return said(tuple(names.get(str(v), str(v)) for v in value))
    return said(names.get(value, value) if isinstance(value, str) else value)


_Row = tuple[str, Value, str, SaidBy]


def _told(target: str, on: str, rows: Iterable[_Row]) -> Iterator[Setting]:
    for key, value, reason, whose in rows:
        yield Setting(
            target=target, key=key, on=on, label=in_words(key), value=value, reason=reason, whose=whose
        )


# Once a better channel plan is known an evaluation is another one, and so are the settings.
_kept: IdentityMemo[HeldSettings] = IdentityMemo(16, weigh=lambda held: 400 * len(held.settings))


def held_settings(plan: Plan) -> HeldSettings:
    """Return every setting of a plan; those of radios rest on the best channel plan that is known."""
    evaluation = evaluate(plan)
    return _kept.get((evaluation, plan.drawn, plan.shelf), None, lambda: _held(plan, evaluation))


def _held(plan: Plan, evaluation: Evaluation) -> HeldSettings:
    assert evaluation.settings is not None, "a quick plan has no settings"
    rows = tuple(_Held(plan, evaluation, evaluation.settings).every())
    return HeldSettings(
        practice=practice_of(plan.drawn, plan.shelf).name,
        settings=rows,
        by=dict(Counter(row.whose for row in rows)),
    )


@dataclass(frozen=True, eq=False)
class _Held:
    plan: Plan
    evaluation: Evaluation
    sheet: SettingsChapter

    def every(self) -> Iterator[Setting]:
        yield from _told(SITE, "The site", self._site())
        for net in self.sheet.networks:
            yield from _told(f"network/{net.id}", net.name, self._network(net))
            for page in self.sheet.portals:
                if page.network == net.id:
                    yield from _told(f"network/{net.id}", net.name, self._page(page))
        for name in self.sheet.names:
            for part in name.on_air:
                yield from _told(f"name/{part.id}", part.ssid, self._name(name, part))
        for vouchers in self.sheet.vouchers:
            yield from _told(
                f"vouchers/{vouchers.id}", f"Vouchers: {vouchers.name}", self._vouchers(vouchers)
            )
        for key, called in self._managed:
            yield from _told(f"device/{key}", called, self._device(key, called))

    def _figure(self, path: str) -> SaidBy:
        return whose_figure(self.plan.rules, path)

    def _choice(self, field: str) -> SaidBy:
        return whose_site(self.plan.drawn, self.plan.shelf, field)

    def _site(self) -> Iterator[_Row]:
        site, rules, sheet = self.plan.design.site, self.plan.rules, self.sheet
        yield "region", site.domain, "rules of the place it stands in", "brief"
        updates = rules.text("settings.updates")
        at = site.quiet_hour if updates == "nightly" else site.quiet_time
        said = _UPDATES[updates].format(hour=at)
        yield "updates", updates, said, self._figure("settings.updates")
        if updates != "by_hand":
            yield "updates_at", at, f"the place is open {site.opens} to {site.closes}", "brief"
        yield "mesh", sheet.mesh, sheet.mesh_reason, "plan"
        yield "optimiser", sheet.optimiser, sheet.optimiser_reason, self._choice("channels_by")
        for fence in (self.evaluation.signal.fences or ()) if sheet.optimiser else ():
            for key, value in fence.model_dump(exclude={"band"}).items():
                yield f"fence.{fence.band}.{key}", value, "what the plan would use too", "plan"

    def _network(self, net: NetworkSheet) -> Iterator[_Row]:
        element = self.plan.design.of(Network)[net.id]
        purpose, guest = f"for {element.purpose}", element.purpose == "guest"
        offered = int(self.plan.rules[f"settings.offered_vlan.{element.purpose}"])
        numbered: SaidBy = "profile" if element.vlan == offered else "person"
        said = bool(element.reaches or element.shut)
        yield "label", net.name, purpose, "person"
        yield "vlan", net.vlan, net.reason, numbered
        yield "subnet", net.subnet, net.reason, numbered
        yield "gateway", net.gateway, "first of its subnet", "plan"
        for key, value, words in (
            ("pool_first", net.pool_first, "those below are for fixed gear"),
            ("pool_last", net.pool_last, "last of its subnet"),
        ):
            by_hand = getattr(element, key) is not None
            yield key, value, _HAND if by_hand else words, "person" if by_hand else "plan"
        lease = self._ruled(element.lease_h, f"settings.lease_h.{element.purpose}", purpose)
        yield "lease_hours", net.lease_hours, *lease
        isolated = "guests do not see one another" if guest else purpose
        usual: SaidBy = "profile" if net.client_isolation == guest else "person"
        yield "client_isolation", net.client_isolation, isolated, usual
        limit = net.limit_all_mbps
        said_limit: tuple[str, SaidBy] = ("none", "plan") if limit is None else (_HAND, "person")
        yield "limit_all_mbps", limit, *said_limit
        by_hand = element.internet is not None
        yield "internet", net.internet, _HAND if by_hand else purpose, "person" if by_hand else "profile"
        yield "reaches", tuple(net.reaches), _HAND if said else purpose, "person" if said else "profile"

    def _page(self, page: PortalSheet) -> Iterator[_Row]:
        usual = self.plan.catalogue.site_kinds[self.plan.design.site.kind]
        on = f"whoever joins {page.network_name} meets a page first"
        by: SaidBy = "profile" if page.way == usual.guests.way else "person"
        yield "page.on", True, on, "person"
        yield "page.way", page.way, f"a guest {page.says}", by
        hours: SaidBy = "profile" if page.session_h == usual.guests.session_h else "person"
        yield "page.hours", page.session_h, "then it is shown again, but for vouchers", hours
        yield "page.asks", page.asks, page.says, "person"
        yield "page.terms", page.terms, "what a guest agrees to", "person"
        told = f"by {page.told_by}" if page.told_by else "nobody was asked yet what local law says"
        yield "page.kept_days", page.kept_days, told, "brief" if page.told_by else "person"

    def _vouchers(self, sheet: VoucherSheet) -> Iterator[_Row]:
        element = self.plan.design.of(VoucherSet)[sheet.id]
        yield "label", sheet.name, _HAND, "person"
        yield "network", sheet.network, "whose page asks for them", "person"
        many = "one for each guest room" if element.number == 1 else f"{element.number} for each guest room"
        by: tuple[str, SaidBy] = (many, "plan") if element.rooms else (_HAND, "person")
        yield "total", sheet.total, *by
        yield "hours", sheet.hours, f"{sheet.lasts} from the first use", "person"
        yield "devices", sheet.devices, "on with one voucher", "person"
        limits: dict[str, tuple[str, SaidBy]] = {
            "vouchers": (_HAND, "person"),
            "name": ("the limit of the name on the air", "person"),
            "network": ("the limit of all the network together", "person"),
            "line": ("what the line gives", "plan"),
        }
        yield "limit_mbps", sheet.limit_mbps, *limits[sheet.limit_by]

    def _ruled(self, said: object, path: str, reason: str) -> tuple[str, SaidBy]:
        return (_HAND, "person") if said is not None else (reason, self._figure(path))

    def _name(self, name: NameSheet, part: Broadcast) -> Iterator[_Row]:
        element = self.plan.design.of(WirelessName)[name.id]
        purpose = self.plan.design.of(Network)[element.network].purpose
        why, alone = f"for {purpose}", len(name.on_air) == 1
        called: tuple[str, SaidBy] = ("as it is called", "person")
        bands: tuple[str, SaidBy] = (_HAND, "person")
        if not alone:
            called = bands = ("each access point or band has a name of its own", "profile")
        everywhere = "every access point" if name.everywhere and alone else "where it is wanted"
        isolated: SaidBy = "profile" if name.client_isolation == (purpose == "guest") else "person"
        yield "ssid", part.ssid, *called
        yield "network", element.network, _HAND, "person"
        yield "bands", part.bands, *bands
        yield "access_points", part.access_points, everywhere, "person" if element.access_points else "plan"
        yield "security", name.security, _HAND, "person"
        yield "client_isolation", name.client_isolation, why, isolated
        by = f"settings.fast_transition.{purpose}"
        yield "fast_transition", name.fast_transition, *self._ruled(element.fast_transition, by, why)
        steered = self._ruled(element.steering, "settings.bands_by", "one name on several bands")
        yield "steering", name.steering, *steered
        yield "dtim", name.dtim, *self._ruled(element.dtim, f"settings.dtim.{purpose}", why)
        rate = self._ruled(element.lowest_rate_mbps, f"settings.lowest_rate_mbps.{purpose}", why)
        yield "lowest_rate_mbps", name.lowest_rate_mbps, *rate
        limited = name.limit_mbps is not None
        yield "limit_mbps", name.limit_mbps, _HAND if limited else "none", "person" if limited else "plan"
        yield "hours", name.hours, _HAND if name.hours else "always on", "person" if name.hours else "plan"

    @cached_property
    def _managed(self) -> list[tuple[str, str]]:
        """Ids and names of what a controller holds, switches first."""
        switches, catalogue = self.plan.design.of(Switch).values(), self.plan.catalogue
        found = [(s.id, s.name) for s in switches if catalogue.switches[s.model].managed]
        devices = self.plan.design.of(Device).values()
        return found + [(d.id, d.name) for d in devices if d.model in catalogue.airs or d.id in self._ports]

    def _device(self, key: str, name: str) -> Iterator[_Row]:
        yield "label", name, "named after where it is", "person"
        for radio in self._radios.get(key, ()):
            yield from self._radio(radio)
        if key in self._radios:
            yield self._fairness(key)
        for port in self._ports.get(key, ()):
            at, by = f"port.{port.port}", _MEMBER[port.whose]
            yield f"{at}.label", port.name, port.reason, by
            yield f"{at}.on", port.enabled, port.reason, by
            yield f"{at}.untagged", port.untagged_vlan, port.reason, by
            yield f"{at}.tagged", port.tagged_vlans, port.reason, by
            yield f"{at}.power", port.power, port.reason, by

    @cached_property
    def _ports(self) -> dict[str, list[PortSheet]]:
        return _grouped(self.sheet.ports, lambda p: p.switch)

    @cached_property
    def _radios(self) -> dict[str, list[RadioSheet]]:
        return _grouped(self.evaluation.signal.radios or (), lambda r: r.device)

    def _radio(self, radio: RadioSheet) -> Iterator[_Row]:
        at, by = f"radio.{radio.band}", _ORIGIN[radio.origin]
        yield f"{at}.on", radio.on, radio.channel_reason, by
        if self.sheet.optimiser and by == "plan":
            within = "the optimiser sets it within the fences"
            yield f"{at}.tuned", True, within, self._choice("channels_by")
            return
        wide = self._choice("width_5ghz_mhz") if radio.band == "5" else "plan"
        yield f"{at}.channel", radio.channel, radio.channel_reason, by
        yield f"{at}.width_mhz", radio.width_mhz, f"{radio.width_mhz} MHz", wide
        yield f"{at}.power_dbm", radio.power_dbm, radio.power_reason, by

    def _fairness(self, device: str) -> _Row:
        """Return whether many share an access point at the busiest hour, where that is asked."""
        rules, busy = self.plan.rules, self.evaluation.signal.busy
        whose = self._figure("settings.fairness")
        if rules.text("settings.fairness") == "off":
            return "airtime_fairness", False, "off until all else is tuned", whose
        loads = busy.loads if busy is not None else ()
        clients = sum(x.clients for x in loads if x.device == device)
        least = rules["settings.fairness_clients"]
        reason = f"{clients:.0f} clients at the busiest hour, on from {least:g}"
        return "airtime_fairness", clients >= least, reason, whose


def _grouped(rows: Iterable[T], by: Callable[[T], str]) -> dict[str, list[T]]:
    found: dict[str, list[T]] = {}
    for row in rows:
        found.setdefault(by(row), []).append(row)
    return found
