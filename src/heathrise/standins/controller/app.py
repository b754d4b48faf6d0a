"""The stand-in over HTTP: the contract under ``/sites/<site>/v1``, and under ``/standin`` what only a
stand-in has: gear is plugged in, time is let go by, faults are given."""

from __future__ import annotations

import json
import re
import time
from pathlib import Path
from threading import RLock
from typing import Any

from apiflask import APIBlueprint, APIFlask
from flask import Response, jsonify, request
from pydantic import BaseModel, Field

from ...controller.contract import (
    CONTRACT,
    About,
    Backup,
    Blink,
    GearList,
    Held,
    KeyChecked,
    KeySaid,
    Measured,
    Scan,
    ScanAsked,
    Sent,
    Taken,
)
from ...controller.story import Story
from .gear import FAULTS, LATEST, Fault, Planted
from .measured import measured_at
from .scanning import scan_of
from .site import Refused, SimulatedSite

TITLE = "Controller of a site"
MOST_SITES = 200


class Planting(BaseModel):
    """Gear that is plugged in, so many of it at fault, by a seed."""

    gear: list[Planted] = Field(max_length=2_000)
    seed: int = 1
    faults: int = Field(0, ge=0, le=2_000)


class Passing(BaseModel):
    seconds: float = Field(ge=0, le=700_000)


class FaultGiven(BaseModel):
    serial: str
    fault: Fault


class Sites:
    """The simulated sites of a stand-in; with a ``folder`` they outlive it, with a ``pace`` time goes by
    itself, so many seconds in each."""

    def __init__(self, folder: Path | None = None, pace: float = 0.0) -> None:
        self._folder, self.pace = folder, pace
        self._sites: dict[str, SimulatedSite] = {}
        self._looked = time.monotonic()
        self.lock = RLock()
        for path in sorted(folder.glob("*.json")) if folder is not None and folder.is_dir() else ():
            site = SimulatedSite(path.stem)
            site.state = type(site.state).model_validate_json(path.read_text("utf-8"))
            self._sites[path.stem] = site

    def of(self, name: str, make: bool = False) -> SimulatedSite:
        """Return a site after time has gone by.

        Raises:
            Refused: there is none of this name.
        """
        now = time.monotonic()
        for site in self._sites.values():
            site.advance((now - self._looked) * self.pace)
        self._looked = now
        if name not in self._sites:
            if not make or not re.fullmatch(r"[A-Za-z0-9-]{1,60}", name) or len(self._sites) >= MOST_SITES:
                raise Refused(f"there is no site {name[:60]!r}", 404)
            self._sites[name] = SimulatedSite(name)
        return self._sites[name]

    def refused(self, asked: dict[str, str], words: str) -> None:
        """Note what a site would not do."""
        if (found := self._sites.get(asked.get("site", ""))) is not None:
            found.mark("refused", asked.get("serial", ""), words)

    def forget(self, name: str) -> None:
        self._sites.pop(name, None)
        if self._folder is not None:
            (self._folder / f"{name}.json").unlink(missing_ok=True)

    def keep(self, name: str) -> None:
        """Write a site down."""
        if self._folder is None or name not in self._sites:
            return
        self._folder.mkdir(parents=True, exist_ok=True)
        fresh = self._folder / f"{name}.new"
        fresh.write_text(self._sites[name].state.model_dump_json(), "utf-8")
        fresh.replace(self._folder / f"{name}.json")


def create_standin(folder: Path | None = None, pace: float = 0.0, sites: Sites | None = None) -> APIFlask:
    """Return the stand-in as an application, over ``sites`` or over those that are kept in a folder."""
    app = APIFlask(__name__, title=TITLE, version=str(CONTRACT), docs_path=None)
    app.config["MAX_CONTENT_LENGTH"] = 8_000_000
    sites = sites or Sites(folder, pace)
    app.register_blueprint(_contract(sites))
    app.register_blueprint(_standin(sites), url_prefix="/standin/<site>")

    @app.errorhandler(Refused)
    def refused(error: Refused) -> tuple[Response, int]:
        sites.refused(request.view_args or {}, str(error))
        return jsonify({"message": str(error)}), error.status

    @app.before_request
    def take() -> None:
        sites.lock.acquire()

    @app.teardown_request
    def give(_: BaseException | None) -> None:
        if request.method != "GET" and request.view_args:
            sites.keep(request.view_args.get("site", ""))
        sites.lock.release()

    return app


def _contract(sites: Sites) -> APIBlueprint:
    routes = APIBlueprint("controller", __name__, url_prefix="/sites/<site>/v1")

    @routes.get("/about")
    @routes.output(About)
    def about(site: str) -> dict[str, Any]:
        state = sites.of(site).state
        updating = state.updating_until_s is not None
        newer = state.firmware + 1 if state.firmware < LATEST and not updating else None
        return {
            "contract": CONTRACT,
            "name": "Stand-in",
            "site": state.site,
            "firmware": state.firmware,
            "offers": newer,
            "updating": updating,
            "now_s": state.now_s,
            "local": state.local,
        }

    @routes.post("/update")
    @routes.output({}, status_code=202)
    def update_self(site: str) -> dict[str, Any]:
        """Let the controller update itself."""
        sites.of(site).update_self()
        return {}

    @routes.get("/gear")
    @routes.output(GearList)
    def gear(site: str) -> dict[str, Any]:
        """List the devices that show themselves."""
        found = sites.of(site)
        rows = []
        for one in found.seen():
            stand = found.stand_of(one)
            up = stand == "online"
            newer = one.firmware + 1 if one.firmware < LATEST and up else None
            rows.append(
                {
                    "serial": one.planted.serial,
                    "model": one.planted.model,
                    "kind": one.planted.kind,
                    "label": one.values.get("label", ""),
                    "stand": stand,
                    "address": one.address,
                    "firmware": one.firmware,
                    "offers": newer,
                    "held_by": "another controller" if stand == "held_elsewhere" else "",
                    "parent": one.parent,
                    "port": one.planted.port,
                    "link_mbps": one.planted.link_mbps if up else None,
                    "watts": one.planted.watts if up else None,
                    "blinking": one.blinking,
                    "version": one.version,
                    "applied": one.applied,
                    "refuses": one.refuses,
                }
            )
        return {"gear": rows}

    @routes.post("/gear/<serial>/adopt")
    @routes.output({}, status_code=202)
    def adopt(site: str, serial: str) -> dict[str, Any]:
        sites.of(site).adopt(serial)
        return {}

    @routes.post("/gear/<serial>/update")
    @routes.output({}, status_code=202)
    def update(site: str, serial: str) -> dict[str, Any]:
        sites.of(site).update(serial)
        return {}

    @routes.post("/gear/<serial>/blink")
    @routes.input(Blink, arg_name="said")
    @routes.output({})
    def blink(site: str, serial: str, said: Blink) -> dict[str, Any]:
        """Let a device blink, so that it is found."""
        sites.of(site).blink(serial, said.on)
        return {}

    @routes.get("/settings")
    @routes.output(Held)
    def held(site: str) -> dict[str, Any]:
        """Read back everything that is held."""
        found = sites.of(site)
        return {"held": found.held(), "keyed": found.state.keys.counts}

    @routes.patch("/settings/<path:target>")
    @routes.input(Sent, arg_name="said")
    @routes.output(Taken, status_code=202)
    def send(site: str, target: str, said: Sent) -> dict[str, Any]:
        """Send settings for one target. A device takes its time; read back whether it has them."""
        return {"version": sites.of(site).send(target, said.values)}

    @routes.put("/keys/<path:target>")
    @routes.input(KeySaid, arg_name="said")
    @routes.output(Taken)
    def set_key(site: str, target: str, said: KeySaid) -> dict[str, Any]:
        """Give a wireless name its key, or vouchers their codes; they are never told again."""
        return {"version": sites.of(site).set_key(target, said.key)}

    @routes.post("/keys/<path:target>/check")
    @routes.input(KeySaid, arg_name="said")
    @routes.output(KeyChecked)
    def check_key(site: str, target: str, said: KeySaid) -> dict[str, Any]:
        """Tell whether a name or a set of vouchers has just this."""
        return {"same": sites.of(site).state.keys.has(target, said.key)}

    @routes.get("/measured")
    @routes.output(Measured)
    def measured(site: str) -> dict[str, Any]:
        """Tell who is on what, and how busy and noisy the air is."""
        clients, air = measured_at(sites.of(site))
        return {"clients": clients, "air": air}

    @routes.get("/scan")
    @routes.output(Scan)
    def scan(site: str) -> dict[str, Any]:
        """Tell of the scan that waits or is under way, or what the last one heard."""
        return scan_of(sites.of(site).state.scan)

    @routes.post("/scan")
    @routes.input(ScanAsked, arg_name="said")
    @routes.output(Scan, status_code=202)
    def begin_scan(site: str, said: ScanAsked) -> dict[str, Any]:
        """Let devices listen to the neighbourhood, now or later; their clients are off meanwhile."""
        found = sites.of(site)
        found.scan(said.serials, said.in_s)
        return scan_of(found.state.scan)

    @routes.delete("/scan")
    @routes.output(Scan)
    def drop_scan(site: str) -> dict[str, Any]:
        """Take a scan back that waits."""
        found = sites.of(site)
        found.drop_scan()
        return scan_of(found.state.scan)

    @routes.get("/backup")
    @routes.output(Backup)
    def backup(site: str) -> dict[str, Any]:
        return {"text": sites.of(site).backup()}

    @routes.post("/restore")
    @routes.input(Backup, arg_name="said")
    @routes.output({}, status_code=202)
    def restore(site: str, said: Backup) -> dict[str, Any]:
        sites.of(site).restore(said.text)
        return {}

    return routes


def _standin(sites: Sites) -> APIBlueprint:
    routes = APIBlueprint("standin", __name__, enable_openapi=False)

    @routes.put("/gear")
    @routes.input(Planting, arg_name="said")
    def plant(site: str, said: Planting) -> dict[str, Any]:
        found = sites.of(site, make=True)
        if not found.state.gear:
            found.state.seed = said.seed
        found.plant(said.gear, said.faults)
        return {}

    @routes.post("/pass")
    @routes.input(Passing, arg_name="said")
    def go_by(site: str, said: Passing) -> dict[str, Any]:
        sites.of(site).advance(said.seconds)
        return {}

    @routes.post("/release/<serial>")
    def release(site: str, serial: str) -> dict[str, Any]:
        sites.of(site).release(serial)
        return {}

    @routes.post("/fault")
    @routes.input(FaultGiven, arg_name="said")
    def fault(site: str, said: FaultGiven) -> dict[str, Any]:
        found = sites.of(site)
        if said.serial not in found.state.gear:
            raise Refused(f"there is no device with the serial {said.serial[:40]!r}", 404)
        found.fault(said.serial, said.fault)
        return {"does": FAULTS[said.fault]}

    @routes.get("/story")
    @routes.output(Story)
    def story(site: str) -> dict[str, Any]:
        """Tell what was under way when, what was refused, and which faults there were."""
        state = sites.of(site).state
        gear = [{"serial": s, "faults": g.faults} for s, g in state.gear.items() if g.planted.managed]
        told = {"now_s": state.now_s, "pace": sites.pace, "spans": state.spans, "marks": state.marks}
        return {**told, "gear": gear}

    @routes.delete("/")
    def forget(site: str) -> dict[str, Any]:
        sites.forget(site)
        return {}

    return routes


def contract_text(app: APIFlask) -> str:
    """Return the contract as OpenAPI, as it is kept beside its shapes."""
    return json.dumps(app.spec, indent=1, sort_keys=True) + "\n"
