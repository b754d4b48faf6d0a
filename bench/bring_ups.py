"""Sites brought up by the list alone, against a stand-in with seeded faults.

Whoever does what the list says is ready, and mends what it says is blocked as it says, ends where the plan
is, or where the list names what stands still. Never in silence.
"""

from __future__ import annotations

import logging
import random
import threading
import time
from collections import Counter
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field

from werkzeug.serving import make_server

from heathrise.controller import Controller, ControllerError
from heathrise.controller.bring_up import BringItem, BringUp, bring_up, ticks
from heathrise.controller.service import Controllers
from heathrise.controller.work import PushRun, Seen, read
from heathrise.core.base.progress import always
from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.controlled import PushStep
from heathrise.core.records import Outcome
from heathrise.core.views.managed import tree_of, wanted_of
from heathrise.core.views.push import differing, push_plan
from heathrise.demo import SITES
from heathrise.standins.controller import create_standin
from heathrise.standins.controller.app import Sites
from heathrise.standins.controller.planting import planted, serial_of

from .pace import Failed, Marks
from .packets import campus

MANY = 1000
MOST_ROUNDS = 60
ROUND_SECONDS = 45.0
MOST_STILL = 20  # rounds in which nothing can be done: gear that is slow takes a quarter of an hour


@contextmanager
def standing_in() -> Iterator[tuple[str, Sites]]:
    """Serve a stand-in on loopback, whose time goes by when it is told to; give its address and sites."""
    logging.getLogger("werkzeug").setLevel(logging.ERROR)
    sites = Sites()
    server = make_server("127.0.0.1", 0, create_standin(sites=sites), threaded=True)
    thread = threading.Thread(target=server.serve_forever, daemon=True)
    thread.start()
    try:
        yield f"http://127.0.0.1:{server.port}", sites
    finally:
        server.shutdown()
        thread.join()


@dataclass
class Installer:
    """Does what the list says, and nothing else."""

    plan: Plan
    site: str
    controllers: Controllers
    sites: Sites
    careful: bool = True
    serials: dict[str, str] = field(default_factory=dict)
    done: list[tuple[PushStep, Outcome, str]] = field(default_factory=list)
    said: list[str] = field(default_factory=list)

    @property
    def controller(self) -> Controller:
        return self.controllers.of(self.site)

    def wait(self, seconds: float = ROUND_SECONDS) -> None:
        with self.sites.lock:
            self.sites.of(self.site).advance(seconds)

    def look(self) -> tuple[Seen, BringUp]:
        seen = read(self.controller, tree_of(self.plan), self.serials)
        return seen, bring_up(self.plan, seen, ticks(), backed_up=True)

    def work(self) -> BringUp:
        """Go on until nothing is left that can be done."""
        still = 0
        for _ in range(MOST_ROUNDS):
            seen, found = self.look()
            items = [i for s in found.steps for i in s.items]
            did = [self._do(i, seen) for i in items if i.does and i.state in ("ready", "blocked")]
            pushed = any(i.does == "push" and i.state == "ready" for i in items) and self._push()
            still = 0 if any(did) or pushed else still + 1
            if all(i.state == "done" for i in items) or still > MOST_STILL:
                return self.look()[1]
            self.wait()
        return self.look()[1]

    def _do(self, item: BringItem, seen: Seen) -> bool:
        try:
            if item.does == "update_itself":
                self.controller.update_itself()
            elif item.does in ("release", "match") and not self.careful:
                return False
            elif item.does == "release":
                self.controllers.release(self.site, item.serial)
            elif item.does == "adopt":
                self.controller.adopt(item.serial)
            elif item.does == "update":
                self.controller.update(item.serial)
            elif item.does == "match" and item.device is not None:
                serial = serial_of(self.site, item.device)
                if serial not in seen.gear or self.serials.get(item.device) == serial:
                    return False
                self.serials[item.device] = serial
            else:
                return False
        except ControllerError as error:
            self.said.append(f"{item.name}: {error}")
            return False
        return True

    def _push(self) -> bool:
        controller = self.controller
        seen = read(controller, tree_of(self.plan), self.serials)
        rows = differing(self.plan, seen.held, seen.matched)
        ready = seen.sendable(rows)
        steps = push_plan(self.plan, seen.held, ready)
        run = PushRun(controller, seen.matched, pause=lambda _: self.wait(3.0))
        self.done += run.run(steps, always)
        return bool(steps)


def brought_up(plan: Plan, seed: int, base: str, sites: Sites) -> tuple[Installer, BringUp]:
    """Bring a site up from nothing, with faults by a seed; return how it went. Every third installer neither
    has gear released nor reads labels."""
    site = f"bench-{seed}"
    place = Controllers(base, standin=True)
    rows = [row.model_dump() for row in planted(plan, site)]
    place.plug_in(site, rows, seed, random.Random(seed).randrange(0, 6))
    found = Installer(plan, site, place, sites, careful=seed % 3 != 0)
    return found, found.work()


def outcome(installer: Installer, found: BringUp) -> str:
    """Return how a site ended: as planned, stopped by name, or in silence."""
    seen, _ = installer.look()
    if found.done == found.of and not differing(installer.plan, seen.held, seen.matched):
        return "as planned"
    return "by name" if found.blocked else "silent"


def bring_ups() -> None:
    """Print how a thousand sites end that are brought up by the list, and how long a push plan takes."""
    marks = Marks("Bring-up")
    _push_plan(marks)
    plans = [Plan(s.make(), load_catalogue()) for s in SITES]
    began, ends = time.perf_counter(), Counter[str]()
    with standing_in() as (base, sites):
        for seed in range(MANY):
            installer, found = brought_up(plans[seed % len(plans)], seed, base, sites)
            ends[outcome(installer, found)] += 1
            installer.controllers.forget(installer.site)
    said = ", ".join(f"{count} {how}" for how, count in ends.most_common())
    print(f"  {MANY} sites in {time.perf_counter() - began:.0f} s: {said}")
    if ends["silent"]:
        raise Failed("some ended in silence")


def _push_plan(marks: Marks) -> None:
    plan = Plan(campus(access_points=56), load_catalogue())
    wanted_of(plan)
    tree_of(plan)
    began = time.perf_counter()
    rows = differing(plan, {})
    steps = push_plan(plan, {}, rows)
    took = 1000 * (time.perf_counter() - began)
    devices = sum(s.phase == "device" for s in steps)
    marks.row(
        f"push plan for {devices} devices", took, "ms", 200, f"{len(rows)} settings, {len(steps)} steps"
    )
