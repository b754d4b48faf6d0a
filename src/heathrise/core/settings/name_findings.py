"""What is wrong with wireless names: too many, on the air nowhere, half their hours, what 6 GHz forbids."""

from __future__ import annotations

from collections.abc import Iterator

from ..catalogue import Catalogue
from ..context.findings import Cure, Finding
from ..context.on_air import fullest_names, on_air_at
from ..design import Design, Device, WirelessName, put
from .reach import settings_finding

_NOT_ON_6: dict[str, str] = {
    "wpa2": "WPA2",
    "wpa3_wpa2": "WPA3 or WPA2 mixed",
    "open_portal": "no encryption at all",
}


def name_findings(design: Design, catalogue: Catalogue) -> Iterator[Finding]:
    """Yield what is wrong with the names on the air."""
    names, rules = list(design.of(WirelessName).values()), catalogue.rules
    fullest = fullest_names(design, catalogue)
    most = int(rules["settings.most_names"])
    if len(fullest) > most:
        on = "every access point" if len(fullest) == len(names) else "an access point"
        text = f"{len(fullest)} wireless names on {on}; each sends beacons of its own."
        yield settings_finding(
            "names",
            "near",
            text,
            f"at most {most} names on an access point",
            *fullest[-1:],
            figure=len(fullest),
            limit=most,
            unit="names",
            used=rules.used("settings.most_names"),
            source=rules.source("settings.most_names"),
        )
    points = [d.id for d in design.of(Device).values() if d.model in catalogue.airs]
    for name in names:
        if points and not any(on_air_at(name, point) for point in points):
            everywhere = put(name.model_copy(update={"access_points": ()}))
            yield settings_finding(
                f"nowhere-{name.id}",
                "not_met",
                f"{name.ssid} is on no access point: none of those that it is kept to is planned any more.",
                "a name is on the air somewhere",
                name,
                source="practice",
                cures=(Cure(label=f"Let {name.ssid} be on every access point", changes=(everywhere,)),),
            )
        if (name.from_hour is None) != (name.to_hour is None):
            always = put(name.model_copy(update={"from_hour": None, "to_hour": None}))
            yield settings_finding(
                f"hours-{name.id}",
                "near",
                f"{name.ssid}: one of its two hours is missing, so that it is always on.",
                "a name that has hours has both",
                name,
                source="practice",
                cures=(Cure(label=f"Let {name.ssid} be always on", changes=(always,)),),
            )
        if "6" in name.bands and name.security in _NOT_ON_6:
            without = tuple(b for b in name.bands if b != "6")
            cures = [
                Cure(
                    label=f"WPA3 alone for {name.ssid}",
                    effect="older clients cannot join it",
                    changes=(put(name.model_copy(update={"security": "wpa3"})),),
                )
            ]
            if without:
                less = put(name.model_copy(update={"bands": without}))
                cures.insert(0, Cure(label=f"Take {name.ssid} off 6 GHz", changes=(less,)))
            text = f"{name.ssid} is on 6 GHz with {_NOT_ON_6[name.security]}; there only WPA3 is "
            text += "allowed, so nobody joins it there."
            yield settings_finding(
                f"six-{name.id}",
                "not_met",
                text,
                "on 6 GHz WPA3 alone, or an open name that encrypts",
                name,
                cures=tuple(cures),
                source="ieee-802.11",
            )
    seen: dict[str, WirelessName] = {}
    for name in names:
        other = seen.setdefault(name.ssid, name)
        if other is not name:
            text = f"Two wireless names are called {name.ssid!r}."
            yield settings_finding(f"twice-{name.id}", "not_met", text, "a name stands once", other, name)
