"""Asks the whole API what nobody should, and what somebody will: no answer may be a failure.

    python -m bench.fuzz [REQUESTS [SEED]]

Requests are made from the API's own description: each field now as it should be, now not at all,
now as something else. They go to the application in this process; bounded in count.
"""

from __future__ import annotations

import io
import json
import random
import sys
from collections import Counter
from collections.abc import Iterator
from typing import Any

from flask import Flask
from flask.testing import FlaskClient

from heathrise.core.catalogue import load_catalogue
from heathrise.core.design import Design
from heathrise.demo import SITES
from heathrise.formats.registry import formats
from heathrise.store import Repository, connect
from heathrise.store.migrate import migrate
from heathrise.web.app import create_app
from heathrise.web.demo import load_demo
from ops.database import running
from ops.machine import VAR

REQUESTS = 20_000
SEED = 16
_DEEP: Any = []
for _ in range(300):
    _DEEP = [_DEEP]
ODD: list[Any] = [
    None,
    True,
    False,
    -1,
    0,
    1,
    2**31,
    2**63,
    -(2**63),
    10**40,
    1e308,
    -1e308,
    5e-324,
    0.00001,
    "",
    " ",
    "²",
    "٣",
    "9" * 5000,
    "a" * 5000,
    "\x0b",
    "\x00",
    "\ud800",
    "\ufffe",
    "é" * 200,
    "0001-01-01",
    "9999-12-31",
    "0001-01-01T00:00:00+14:00",
    "9999-12-31T23:59:59-12:00",
    "now",
    "2026-02-30",
    "=1+1",
    "<script>",
    "' or 1=1 --",
    "../../etc/passwd",
    "%00",
    "NaN",
    "Infinity",
    [],
    {},
    [[]],
    [None],
    {"a": {"b": {"c": {}}}},
    _DEEP,
]
_TABLES = (
    "label,result,length_m,worst_margin_db,date,tester",
    "label,link_mbps,watts,date",
    "switch,port,mbps,w",
    "item,price,on",
    "name,channel,width,dbm,band,x,y,storey",
    "access_point,storey,x,y,band,dbm",
    "bssid,dbm,channel,x,y",
    "no,such,table",
)


class Asker:
    """Makes requests from the description of an application."""

    def __init__(self, app: Flask, repository: Repository, seed: int) -> None:
        self.client: FlaskClient = app.test_client()
        with app.app_context():
            self.spec: dict[str, Any] = app.spec  # type: ignore[attr-defined]
        self.repository = repository
        self.chance = random.Random(seed)
        self.rules = [r for r in app.url_map.iter_rules() if str(r).startswith("/api/")]
        self.projects = [p.id for p in repository.projects()]
        self.words: list[str] = []
        self.oddness = 0.0
        self.answered: Counter[int] = Counter()

    def ask(self) -> tuple[str, int, str]:
        """Make one request; return what was asked, the status, and what a failure said."""
        chance = self.chance
        self.oddness = chance.choice([0.0, 0.02, 0.15])
        rule = chance.choice(self.rules)
        method = chance.choice(sorted(set(rule.methods or ()) - {"HEAD", "OPTIONS"}))
        project = chance.choice(self.projects) if chance.random() < 0.9 else "p-none"
        design = self._design(project)
        path = str(rule)
        for name in rule.arguments:
            converter = f"<int:{name}>" if f"<int:{name}>" in path else f"<{name}>"
            path = path.replace(converter, self._argument(name, project, design, converter))
        operation = self._operation(str(rule), method)
        query = self._query(operation, design)
        sent = self._body(path, operation, design)
        try:
            answer = self.client.open(path, method=method, query_string=query, **sent)
            text = answer.get_data().decode("utf-8", "replace")  # all that is streamed, too
        except (UnicodeEncodeError, ValueError) as error:
            if "surrogates" in str(error) or "label" in str(error):
                return f"{method} {path}", 0, ""  # no client can send it
            raise
        if method == "DELETE" or (answer.status_code == 404 and project in self.projects):
            self.projects = [p.id for p in self.repository.projects()]
        shown = f"{method} {path[:200]} {str(query)[:300]} {str(sent)[:600]}"
        return shown, answer.status_code, text[:400]

    def _design(self, project: str) -> Design:
        try:
            return self.repository.load(project).design
        except LookupError:
            return SITES[0].make()

    def _argument(self, name: str, project: str, design: Design, converter: str) -> str:
        chance = self.chance
        if converter.startswith("<int"):
            return str(chance.choice([0, 1, 2, 7, 99_999, 2**40]))
        pools: dict[str, list[str]] = {
            "project_id": [project],
            "floor": [*design.tables.get("floor", {}), "gone"],
            "band": ["2.4", "5", "6", "7"],
            "what": [*formats("out"), "tea.txt"],
            "x": ["3", "-4.5", "1e9", "nan"],
            "y": ["2", "7.5", "-1e400"],
        }
        if name in pools and chance.random() < 0.95:
            return chance.choice(pools[name])
        odd = str(chance.choice(ODD))[:60].replace("/", "").replace("\ud800", "")
        return odd or "none"

    def _operation(self, rule: str, method: str) -> dict[str, Any]:
        path = rule.replace("<int:", "{").replace("<", "{").replace(">", "}")
        found: dict[str, Any] = self.spec["paths"].get(path, {}).get(method.lower(), {})
        return found

    def _query(self, operation: dict[str, Any], design: Design) -> dict[str, str]:
        rows = [p for p in operation.get("parameters", []) if p.get("in") == "query"]
        found = {
            p["name"]: str(self._value(p["schema"], design, 0)) for p in rows if self.chance.random() < 0.8
        }
        extra = self.chance.choice(["take", "scale", "x", "floor", "against"])
        if self.chance.random() < 0.2:
            found[extra] = str(self.chance.choice(ODD))
        return {k: v.encode("utf-8", "ignore").decode() for k, v in found.items()}

    def _body(self, path: str, operation: dict[str, Any], design: Design) -> dict[str, Any]:
        chance = self.chance
        content = operation.get("requestBody", {}).get("content", {})
        if "application/json" in content:
            if path.endswith(("/changes", "/preview")):
                return {"json": self._edit(path, design)}
            body = self._value(content["application/json"]["schema"], design, 0)
            if chance.random() < 0.03:
                return {"data": json.dumps(body)[:-3], "content_type": "application/json"}
            return {"json": body}
        if path.endswith(("/pictures", "/import/dxf")):
            data = chance.choice([b"", b"\xff\xd8\xff", b"%PDF-1.4", b"0\nSECTION\n", b"\x89PNG"])
            name = "picture" if path.endswith("pictures") else "drawing"
            form = {
                name: (io.BytesIO(data), "f"),
                "page": str(chance.choice(ODD)),
                "choice": json.dumps({"name": "x", "layers": chance.choice(ODD)}),
            }
            form = {k: v for k, v in form.items() if chance.random() < 0.9}
            return {"data": form, "content_type": "multipart/form-data"}
        return {"data": self._table()}

    def _table(self) -> bytes:
        chance = self.chance
        head = chance.choice(_TABLES)
        cells = [str(o).replace("\n", " ")[:200] for o in ODD] + ["AP-1", "5", "-60", "pass", "6"]
        rows = [",".join(chance.choice(cells) for _ in head.split(",")) for _ in range(chance.randint(0, 6))]
        return "\n".join([head, *rows]).encode("utf-8", "ignore")

    def _edit(self, path: str, design: Design) -> dict[str, Any]:
        """Return an edit of a few elements that are there, each with a field or two made odd."""
        chance = self.chance
        revision = chance.choice([1, 1, 2, 3, *ODD[:6]])
        project = path.split("/")[3]
        if chance.random() < 0.8:
            try:
                revision = self.repository.load(project).revision
            except LookupError:
                revision = 1
        changes: list[dict[str, Any]] = []
        for _ in range(chance.randint(1, 3)):
            kind = chance.choice([k for k, rows in design.tables.items() if rows])
            element = chance.choice(list(design.tables[kind].values()))
            if chance.random() < 0.15:
                changes.append({"op": "remove", "kind": kind, "id": element.id})
                continue
            row = element.model_dump(mode="json")
            if chance.random() < 0.3:
                row["id"] = f"new-{chance.randint(1, 9)}"
            for field in chance.sample(sorted(row), k=min(len(row), chance.randint(0, 2))):
                row[field] = self._near(row[field])
            changes.append({"op": "put", "kind": kind, "element": row})
        view = {
            "floor": chance.choice([*design.tables.get("floor", {}), "gone"]),
            "band": "5",
            "rank": 1,
            "direction": "weaker",
            "show": chance.choice(["level", "difference", "tea"]),
            "against": chance.choice(["", "variant:no", "revision:1"]),
        }
        body = {
            "revision": revision,
            "label": chance.choice(["edit", *map(str, ODD[14:20])]),
            "changes": changes,
            "view": chance.choice([None, view]),
        }
        return {k: v for k, v in body.items() if chance.random() < 0.97}

    def _near(self, value: Any) -> Any:
        """Return something near a value, so that many an edit is taken, or something odd."""
        chance = self.chance
        if isinstance(value, bool):
            return not value
        if isinstance(value, int | float) and chance.random() < 0.7:
            return value + chance.choice([-1, 1, 0.5, -0.5, 10])
        if isinstance(value, str) and chance.random() < 0.5:
            return value + chance.choice(["\x0b", " x", "é", "\u2028", "\t"])
        return chance.choice(ODD)

    def _value(  # noqa: PLR0911
        self, schema: dict[str, Any], design: Design, depth: int
    ) -> Any:
        """Return a value by its description, one in ten times an odd one."""
        chance = self.chance
        if chance.random() < self.oddness or depth > 8:
            return chance.choice(ODD)
        while "$ref" in schema:
            schema = self.spec["components"]["schemas"][schema["$ref"].rsplit("/", 1)[1]]
        for several in ("anyOf", "oneOf"):
            if several in schema:
                return self._value(chance.choice(schema[several]), design, depth + 1)
        if "enum" in schema:
            return chance.choice(schema["enum"])
        if "const" in schema:
            return schema["const"]
        kind = schema.get("type")
        if kind == "object":
            needed = set(schema.get("required", ()))
            return {
                name: self._value(inner, design, depth + 1)
                for name, inner in schema.get("properties", {}).items()
                if name in needed or chance.random() < 0.6
            }
        if kind == "array":
            fixed: list[dict[str, Any]] = schema.get("prefixItems", [])
            rows = fixed or [schema.get("items", {})] * chance.randint(0, 3)
            return [self._value(row, design, depth + 1) for row in rows]
        if kind in ("integer", "number"):
            low = schema.get("minimum", schema.get("exclusiveMinimum", 0))
            high = schema.get("maximum", low + 100)
            number = chance.uniform(low, min(high, low + 1e6))
            return round(number) if kind == "integer" else number
        if kind == "boolean":
            return chance.random() < 0.5
        return self._word(design)

    def _word(self, design: Design) -> str:
        chance = self.chance
        if not self.words:
            kinds = ("device", "floor", "switch", "space", "variant", "habit")
            self.words = [k for kind in kinds for k in design.tables.get(kind, {})]
            self.words += ["cures", "drill", "sites", "brief_pdf", "A4", "Jo", "5", "safe"]
        if chance.random() < 0.2:
            return f"key-{chance.randint(1, 10**9):012d}"
        return chance.choice([*self.words, "2026-11-24", "2026-11-24T10:00:00+00:00"])


def failures(asker: Asker, count: int) -> Iterator[tuple[str, int, str]]:
    """Ask so often; yield what came back as the server's own failing."""
    for _ in range(count):
        asked, status, said = asker.ask()
        asker.answered[status] += 1
        if status >= 500 and not said.startswith('{"message":"The machine is busy'):
            yield asked, status, said


def fuzz(count: int = REQUESTS, seed: int = SEED) -> int:
    """Fuzz the demo's application over a database of its own; return how many requests failed."""
    with running(VAR / "bench", durable=False) as database:
        engine = connect(database.create("fuzz", fresh=True))
        migrate(engine)
        repository = Repository(engine, load_catalogue())
        load_demo(repository)
        asker = Asker(create_app(repository), repository, seed)
        found = list(failures(asker, count))
        engine.dispose()
    for asked, status, said in found[:10]:
        print(f"  {status} {asked}\n    {said}")
    by_status = ", ".join(f"{n} {status}" for status, n in sorted(asker.answered.items()))
    print(f"Fuzz: {count} requests over the whole API, {len(found)} failed; {by_status}")
    return len(found)


if __name__ == "__main__":
    numbers = [int(a) for a in sys.argv[1:]]
    sys.exit(min(1, fuzz(*numbers)))
