"""Routes for vouchers: their codes are made and kept sealed, and come out on paper alone, each time noted."""

from __future__ import annotations

import math
import secrets
from datetime import UTC, datetime

from apiflask import APIBlueprint
from flask import Response

from ..core.context.plan import Plan
from ..core.design import DesignError, Problem
from ..core.records import KeyShown
from ..core.settings import VOUCHER_ALPHABET, VoucherSheet, make_codes, one_in
from ..core.views.vouchers import CODES, codes_wanted, slips_of, vouchers_of
from ..formats.papers import vouchers_pdf
from ..store.keys import KeptKey
from .desk import stores
from .key_models import ShownRow, VoucherNamed, VoucherRow, VouchersView
from .keys import last_shown
from .transfer import file_stem
from .wire import AUTHOR, download, json_of

routes = APIBlueprint("vouchers", __name__, url_prefix="/api/projects/<project_id>/vouchers")
_LAST_PRINTED = 3
_EACH_BITS = math.log2(len(VOUCHER_ALPHABET))


@routes.get("")
@routes.output(VouchersView)
def get_vouchers(project_id: str) -> Response:
    """Tell of which sets codes are kept, and how many; never a code."""
    return _answered(project_id)


@routes.post("/make")
@routes.input(VoucherNamed, arg_name="said")
@routes.output(VouchersView, status_code=201)
def make_voucher_codes(project_id: str, said: VoucherNamed) -> Response:
    """Make the codes that a set lacks; those that there are stay valid, since they may be handed out."""
    _, plan = stores().plans.load(project_id)
    sheet, kept, of = _named(plan, said.set), stores().keys, f"{CODES}{said.set}"
    every = {k: kept.show(project_id, k).split("\n") for k in kept.all(project_id) if k.startswith(CODES)}
    mine, valid = every.get(of, []), {code for codes in every.values() for code in codes}
    lacks = sheet.total - len(mine)
    if lacks <= 0:
        raise DesignError([Problem("set", f"all codes of {sheet.name} are made; plan more of them first")])
    at_once = max(len(valid) + lacks, sum(codes_wanted(plan).values()))
    codes = (*mine, *make_codes(lacks, valid, at_once, plan.rules, secrets.SystemRandom()))
    bits = round(min(map(len, codes)) * _EACH_BITS, 1)
    kept.put(project_id, of, "\n".join(codes), "characters", bits, AUTHOR, len(codes))
    return _answered(project_id, 201)


@routes.post("/print")
@routes.input(VoucherNamed, arg_name="said")
def print_vouchers(project_id: str, said: VoucherNamed) -> Response:
    """Print the slips of a set, which is noted. The paper is not kept."""
    saved, plan = stores().plans.load(project_id)
    _named(plan, said.set)
    of = f"{CODES}{said.set}"
    codes = stores().keys.show(project_id, of).split("\n")
    record = KeyShown(at=datetime.now(UTC), author=AUTHOR, of=of, way="slips")
    stores().records.append(project_id, record)
    data = vouchers_pdf(slips_of(plan, saved.name, said.set, codes), plan.design.site.units, plan.on)
    return download(data, "application/pdf", f"{file_stem(saved.name)}-vouchers.pdf")


@routes.post("/forget")
@routes.input(VoucherNamed, arg_name="said")
@routes.output(VouchersView)
def forget_vouchers(project_id: str, said: VoucherNamed) -> Response:
    """Throw the codes of a set away; at the controller they stay until others are sent."""
    stores().repository.load(project_id)
    stores().keys.forget(project_id, f"{CODES}{said.set}")
    return _answered(project_id)


def _named(plan: Plan, key: str) -> VoucherSheet:
    sheet = vouchers_of(plan).get(key)
    if sheet is None:
        raise DesignError([Problem("set", f"no vouchers are planned under {key!r}; open the project again")])
    return sheet


def _answered(project_id: str, status: int = 200) -> Response:
    _, plan = stores().plans.load(project_id)
    every, planned = stores().keys.all(project_id), vouchers_of(plan)
    kept = {of.removeprefix(CODES): row for of, row in every.items() if of.startswith(CODES)}
    printed = last_shown(project_id, _LAST_PRINTED)
    valid = sum(row.parts for row in kept.values())
    rows = [
        _row(key, planned.get(key), kept.get(key), valid, printed.get(f"{CODES}{key}", []))
        for key in dict.fromkeys((*planned, *kept))
    ]
    return json_of(VouchersView(rows=rows), status)


def _row(
    key: str, sheet: VoucherSheet | None, kept: KeptKey | None, valid: int, printed: list[ShownRow]
) -> VoucherRow:
    length = round(kept.bits / _EACH_BITS) if kept is not None else 0
    return VoucherRow(
        set=key,
        name=sheet.name if sheet is not None else "vouchers that are gone",
        total=sheet.total if sheet is not None else 0,
        codes=kept.parts if kept is not None else 0,
        one_in=one_in(valid, length) if kept is not None else None,
        made=kept.made if kept is not None else None,
        by=kept.author if kept is not None else "",
        printed=printed,
    )
