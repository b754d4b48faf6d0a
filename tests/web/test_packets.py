"""Networks over the wire: memberships are saved with what they are about, packets are walked by the server."""

from __future__ import annotations

from typing import get_args

import pytest

from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.context.scope import as_planned
from heathrise.core.design import (
    Design,
    DesignError,
    Device,
    Membership,
    Network,
    Purpose,
    Switch,
    WirelessName,
    apply,
    put,
    remove,
)
from heathrise.formats.project_file import Project, dump_project, load_project
from heathrise.formats.settings_export import settings_document
from heathrise.store import Repository
from heathrise.web.app import create_app


def _guest(design: Design) -> Network:
    return next(n for n in design.of(Network).values() if n.purpose == "guest")


def _socket(design: Design) -> Device:
    return next(d for d in design.of(Device).values() if d.kind == "outlet")


def test_a_packet_is_walked_by_the_server(repository: Repository, school: Design) -> None:
    client = create_app(repository).test_client()
    project = repository.create("Walked", school, "me", "made").id
    path = f"/api/projects/{project}/packet"
    name = next(iter(school.of(WirelessName)))
    point = next(d.id for d in school.of(Device).values() if d.kind == "access_point")
    done = client.get(path, query_string={"start": f"air:{name}:{point}", "goal": "internet"})
    assert done.status_code == 200
    answer = done.get_json()
    assert answer["passes"] and answer["hops"][-1]["kind"] == "line" and answer["links"] == [f"run-{point}"]
    lost = client.get(path, query_string={"start": "air:nobody:nowhere", "goal": "internet"})
    assert lost.status_code in (400, 422) and "there is no host" in lost.get_data(as_text=True)
    assert client.get(path, query_string={"start": "x"}).status_code in (400, 422)


def test_memberships_are_saved_and_go_with_what_they_are_about(
    repository: Repository, school: Design
) -> None:
    made = repository.create("Members", school, "me", "made")
    outlet, guest = _socket(school), _guest(school)
    switch = next(iter(school.of(Switch)))
    said = [
        Membership(id="m-1", network=guest.id, device=outlet.id, port=2),
        Membership(id="m-2", network=guest.id, switch=switch, port=3),
        Membership(id="m-3", network=guest.id, device=outlet.id, port=1, given=True),
    ]
    saved = repository.change(made.id, 1, [put(m) for m in said], "me", "joined")
    again = repository.load(made.id).design
    assert [again.of(Membership)[m.id] for m in said] == said
    with pytest.raises(DesignError, match="membership"):
        repository.change(made.id, saved.revision, [remove(outlet)], "me", "orphaned")
    changes = [remove(said[0]), remove(said[2]), remove(outlet)]
    after = repository.change(made.id, saved.revision, changes, "me", "taken away").design
    assert list(after.of(Membership)) == ["m-2"]


def test_what_is_said_of_networks_and_names_comes_back_from_a_file(school: Design) -> None:
    guest = _guest(school)
    name = next(n for n in school.of(WirelessName).values() if n.network == guest.id)
    point = next(d.id for d in school.of(Device).values() if d.kind == "access_point")
    more = {"access_points": (point,), "limit_mbps": 5.0, "from_hour": "08:00", "to_hour": "18:00", "dtim": 2}
    other = next(n.id for n in school.of(Network).values() if n.id != guest.id)
    design = apply(
        school,
        [
            put(guest.model_copy(update={"shut": (other,), "internet": False, "lease_h": 2})),
            put(name.model_copy(update=more)),
            put(Membership(id="m", network=guest.id, device=_socket(school).id)),
        ],
    )
    text = dump_project(Project("Said", design))
    assert load_project(text, load_catalogue()).design == design


def test_the_settings_that_go_out_say_where_and_when_a_name_is_on(
    school: Design, catalogue: Catalogue
) -> None:
    name = next(iter(school.of(WirelessName).values()))
    point = next(d.id for d in school.of(Device).values() if d.kind == "access_point")
    more = {"access_points": (point,), "limit_mbps": 5.0, "from_hour": "08:00", "to_hour": "18:00"}
    plan = Plan(apply(school, [put(name.model_copy(update=more))]), catalogue)
    document = settings_document("School", plan)
    (row,) = [n for n in document["names"] if n["id"] == name.id]
    assert (row["access_points"], row["everywhere"]) == ([point], False)
    assert (row["limit_mbps"], row["hours"]) == (5.0, "08:00 to 18:00")
    hosts = {h["id"]: h for h in document["hosts"]}
    assert [h for h in hosts if h.startswith(f"air:{name.id}:")] == [f"air:{name.id}:{point}"]


def test_what_is_retired_has_no_network(school: Design) -> None:
    outlet, switch = _socket(school), next(iter(school.of(Switch).values()))
    guest = _guest(school).id
    gone = apply(
        school,
        [
            put(outlet.model_copy(update={"state": "retire"})),
            put(switch.model_copy(update={"state": "retire"})),
            put(Membership(id="m-1", network=guest, device=outlet.id)),
            put(Membership(id="m-2", network=guest, switch=switch.id, port=3)),
        ],
    )
    assert not as_planned(gone).of(Membership)


@pytest.mark.parametrize("purpose", get_args(Purpose))
def test_each_purpose_has_its_figures(purpose: str, catalogue: Catalogue) -> None:
    rules = catalogue.rules
    assert rules[f"settings.lease_h.{purpose}"] >= 1
    assert 1 <= rules[f"settings.dtim.{purpose}"] <= 10
    assert rules.text(f"settings.lowest_rate_mbps.{purpose}") in ("1", "6", "12")
    assert 1 <= rules[f"settings.offered_vlan.{purpose}"] <= 4094


def test_no_two_purposes_are_offered_one_vlan(catalogue: Catalogue) -> None:
    offered = [catalogue.rules[f"settings.offered_vlan.{p}"] for p in get_args(Purpose)]
    assert len(set(offered)) == len(offered)


def test_words_of_rooms_name_purposes_and_clients_do(catalogue: Catalogue) -> None:
    for kind in catalogue.site_kinds.values():
        assert set(kind.networks) <= set(get_args(Purpose))
        assert all(word == word.lower() for words in kind.networks.values() for word in words)
    assert {c.network for c in catalogue.clients.values()} >= {"main", "devices", "tills", "cameras"}
