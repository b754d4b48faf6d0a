"""Settings as a file: by a published schema, out, and in again as changes that one has looked at."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import jsonschema
import pytest
import yaml
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.integrity import check
from heathrise.core.context.plan import Plan
from heathrise.core.controlled import same
from heathrise.core.design import DesignError, Network, Radio, WirelessName, put
from heathrise.core.views.held import held_settings
from heathrise.demo import SITES
from heathrise.formats import settings_export
from heathrise.formats.settings_export import read_settings, settings_schema, write_json, write_yaml
from heathrise.store import Repository
from heathrise.web.app import create_app

from ..thorough import examples

SCHEMA = Path(settings_export.__file__).parent / "schema" / "settings-2.json"
PLAN = Plan(SITES[3].make(), load_catalogue())


@pytest.mark.parametrize("site", SITES, ids=lambda s: s.key)
def test_every_site_s_settings_are_as_the_schema_has_them(site: Any, catalogue: Catalogue) -> None:
    schema = json.loads(SCHEMA.read_text("utf-8"))
    assert schema == settings_schema()
    document = json.loads(write_json(site.name, Plan(site.make(), catalogue)))
    jsonschema.validate(document, schema)
    assert [s["key"] for s in document["settings"]] and document["practice"] == "Planned by hand"
    assert "not included" in document["keys"]


def test_what_was_just_written_changes_nothing() -> None:
    for text in (write_json("T", PLAN), write_yaml("T", PLAN)):
        found = read_settings(text.encode(), PLAN)
        assert not found.changes and not found.taken and not found.left
        assert found.alike == len(held_settings(PLAN).settings)


_NAMES = st.fixed_dictionaries(
    {},
    optional={
        "ssid": st.text("aÄ🎻\"';\\:,", min_size=1, max_size=8).filter(str.strip),
        "dtim": st.integers(1, 10),
        "security": st.sampled_from(["wpa2", "wpa3", "enterprise"]),
        "client_isolation": st.booleans(),
        "lowest_rate_mbps": st.sampled_from([1, 6, 12]),
        "limit_mbps": st.sampled_from([1.5, 20.0]),
    },
)
_NETWORKS = st.fixed_dictionaries(
    {}, optional={"vlan": st.integers(1, 4094), "lease_h": st.integers(1, 99), "internet": st.booleans()}
)


@examples(30)
@given(_NAMES, _NETWORKS, st.sampled_from([36, 40, 52, 100]), st.booleans())
def test_settings_of_another_plan_are_had_by_the_changes_that_are_shown(
    name: dict[str, Any], network: dict[str, Any], channel: int, as_yaml: bool
) -> None:
    ssid = next(iter(PLAN.drawn.of(WirelessName).values()))
    net = PLAN.drawn.of(Network)["net-guest"]
    point = next(d.id for d in PLAN.design.tables["device"].values() if d.kind == "access_point")  # type: ignore[attr-defined]
    other = PLAN.after(
        [
            put(ssid.model_copy(update=name)),
            put(net.model_copy(update=network)),
            put(Radio(id="r", device=point, band="5", channel=channel)),
        ]
    )
    text = write_yaml("T", other) if as_yaml else write_json("T", other)
    found = read_settings(text.encode(), PLAN)
    after = PLAN.after(found.changes)
    check(after.drawn, after.shelf)
    wanted = {(s.target, s.key): s.value for s in held_settings(other).settings}
    held = {(s.target, s.key): s.value for s in held_settings(after).settings}
    own = {
        *((f"name/{ssid.id}", k) for k in name),
        *((f"network/{net.id}", {"lease_h": "lease_hours"}.get(k, k)) for k in network),
        (f"device/{point}", "radio.5.channel"),
    }
    assert all(same(held[k], wanted[k]) for k in own), [(k, held[k], wanted[k]) for k in own]
    assert len(found.taken) + len(found.left) + found.alike == len(wanted)


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"\xff\xfe\x00", "neither JSON nor YAML"),
        (b"{", "neither JSON nor YAML"),
        (b"[" * 90_000, "neither JSON nor YAML"),
        (b"- a\n- b\n", "no settings file"),
        (b'{"format": "heathrise-settings", "version": 1, "settings": []}', "version"),
        (b'{"format": "other", "version": 2, "settings": []}', "format"),
        (b'{"format": "heathrise-settings", "version": 2, "settings": [{"target": 1}]}', "target"),
        (b"{" + b" " * 5_000_001, "at most 5 MB"),
    ],
)
def test_what_is_no_settings_file_is_told(data: bytes, words: str) -> None:
    with pytest.raises(DesignError, match=words):
        read_settings(data, PLAN)


def test_what_the_plan_works_out_or_cannot_stand_with_is_left_and_named() -> None:
    document = json.loads(write_json("T", PLAN))
    rows = {(r["target"], r["key"]): r for r in document["settings"]}
    rows["network/net-guest", "gateway"]["value"] = "10.0.0.1"
    rows["network/net-guest", "vlan"]["value"] = 9_999
    rows["name/ssid-main", "security"]["value"] = "tea"
    document["settings"].append({"target": "device/stranger", "key": "label", "value": "X\u0007"})
    found = read_settings(yaml.safe_dump(document).encode(), PLAN)
    assert not found.changes and not found.taken and len(found.left) == 4
    assert found.left[-1].startswith("device/stranger, name: X") and "\u0007" not in found.left[-1]


def test_a_settings_file_is_looked_at_over_the_wire(repository: Repository) -> None:
    saved = repository.create("Terrace", PLAN.drawn, "me", "begin")
    other = PLAN.after([put(PLAN.drawn.of(Network)["net-guest"].model_copy(update={"vlan": 33}))])
    with create_app(repository).test_client() as client:
        url = f"/api/projects/{saved.id}/settings/read"
        found = client.post(url, data=write_json("T", other).encode()).json
        assert [c["element"]["vlan"] for c in found["changes"]] == [33] and len(found["taken"]) == 1
        assert client.post(url, data=b"tea").status_code == 422
        assert client.get("/api/schema/settings-2.json").json["properties"]["version"]["const"] == 2
    assert repository.load(saved.id).revision == saved.revision  # nothing is changed by looking
