"""A spot is explained over HTTP, or it is said why it cannot be."""

from __future__ import annotations

from typing import Any

from heathrise.core.design import Design
from heathrise.formats.project_file import Project, dump_project
from heathrise.store import Repository
from heathrise.web.app import create_app


def test_rays_to_a_spot(repository: Repository, school: Design) -> None:
    with create_app(repository).test_client() as client:
        data = dump_project(Project("Rays", school))
        project: Any = client.post("/api/import/project", data=data).json
        base = f"/api/projects/{project['id']}/rays"
        view: Any = client.get(f"{base}?floor=ground&x=5.0&y=12.0&band=5").json
        assert view["room"] == "Hall" and view["rays"][0]["name"] in ("AP-1", "AP-2")
        assert view["chance"] > 0.9 and {u["whose"] for u in view["used"]} == {"shipped"}
        for path, words in (
            ("floor=nowhere&x=5&y=5&band=5", "nowhere"),
            ("floor=ground&x=x&y=5&band=5", "x: "),
            ("floor=ground&x=5&y=5&band=7", "band: "),
        ):
            refused = client.get(f"{base}?{path}")
            assert refused.status_code == 422 and words in refused.get_data(as_text=True)
