"""The hand-over for the client: plain words, a plan of where everything is, how to join."""

from __future__ import annotations

from collections.abc import Mapping

import segno
from markupsafe import Markup

from ...core.brief import PainVerdict
from ...core.handover import Handover, Join, OpenPoint, Seen, joins_of
from ...core.views.promises import noticed
from .diagram import network_figure
from .head import NO_HEAD, Head
from .render import Papers, html_of, pdf_of, style
from .sheets import Drawn

_SHEET_MM = (182.0, 122.0)
_NETWORK_MM = (182.0, 190.0)
_QR_MM = 26.0
VERDICTS = {
    "met": "as promised",
    "near": "in part",
    "not_met": "not as promised",
    "heard": "heard, not measured",
    "unknown": "not measured",
}
_OUTCOMES = {
    "met": "mended, measured",
    "heard": "mended, by ear",
    "near": "better",
    "not_met": "not yet",
    "unknown": "by the plan, nobody looked yet",
}
_MOST_OPEN = 16


def client_pdf(drawn: Drawn, handover: Handover, head: Head = NO_HEAD) -> bytes:
    """Return the client's hand-over as PDF, A4 or Letter by the site's units. It holds no keys."""
    site, papers = drawn.design.site, Papers(drawn.design.site.units)
    people = {(j.ssid, j.network, j.how): j for j in handover.joins if j.people}.values()
    unsettled, technical = _for_client(drawn, handover, papers)
    html = html_of(
        "handover.html",
        style=style(),
        size=papers.size,
        head=head,
        warranty=head.firm.warranty,
        name=drawn.name,
        client=site.client_name,
        contact=site.contact or head.firm.contact,
        revision=drawn.revision,
        today=drawn.on.isoformat(),
        done=[papers.words(d) for d in handover.done],
        unsettled=unsettled[:_MOST_OPEN],
        more=max(0, len(unsettled) - _MOST_OPEN),
        technical=technical,
        promises=[
            {
                "what": p.what,
                "promised": p.promised,
                "measured": p.measured,
                "verdict": p.verdict,
                "word": VERDICTS[p.verdict],
            }
            for p in handover.promises
        ],
        sheets=[
            {"svg": Markup(sheet.svg), "name": drawn.title(floor).sheet, "scale": sheet.scale}
            for floor in drawn.floors()
            for sheet in [drawn.sheet_within(floor, _SHEET_MM)]
        ],
        network=network_figure(drawn.diagram, *_NETWORK_MM),
        joins=[joined(j) for j in people],
        gear=[j.ssid for j in handover.joins if not j.people],
        reaches=handover.reaches,
        pains=[_pain(p, handover.complaints[p.pain], papers) for p in drawn.evaluation.brief.pains],
        restart=[papers.words(r) for r in handover.restart],
    )
    return pdf_of(html)


def sealed_pdf(drawn: Drawn, keys: Mapping[str, str], account: tuple[str, str] | None = None) -> bytes:
    """Return the sealed copy: how to join with the keys themselves. It is not kept anywhere.

    Args:
        keys: by the id of a wireless name its key.
        account: what the local administrator is called, and his key.
    """
    papers = Papers(drawn.design.site.units)
    rows = [
        {**joined(j), "key": keys.get(j.name, ""), "wants": j.wants_key}
        for j in joins_of(drawn.design, drawn.catalogue, keys)
    ]
    html = html_of(
        "sealed.html",
        style=style(),
        size=papers.size,
        name=drawn.name,
        today=drawn.on.isoformat(),
        joins=rows,
        account=account,
    )
    return pdf_of(html)


def open_for(handover: Handover, papers: Papers) -> list[dict[str, str]]:
    """Return what is open in words for paper, the worst first."""
    return [_open(p, papers) for p in handover.still_open]


def _for_client(drawn: Drawn, handover: Handover, papers: Papers) -> tuple[list[dict[str, str]], int]:
    """Return what is open in plain words, rooms by what one notices in them, and how many points
    of the plan are for a technician to read."""
    plain = [_open(p, papers) for p in handover.still_open if p.group != "plan"]
    rooms = [
        {"word": "not right", "tone": "not_met", "text": f"{r.name}: {noticed(r)}"}
        for r in drawn.evaluation.rooms
        if r.verdict == "not_met"
    ]
    of_rooms = {s for r in drawn.evaluation.rooms if r.verdict == "not_met" for s in (r.space,)}
    rest = [p for p in handover.still_open if p.group == "plan" and p.element not in of_rooms]
    wrong = [row for row in plain if row["tone"] == "not_met"]
    return [*wrong, *rooms, *(row for row in plain if row["tone"] != "not_met")], len(rest)


def _open(point: OpenPoint, papers: Papers) -> dict[str, str]:
    word = {"not_met": "not right", "near": "look again", "unknown": "not seen"}[point.tone]
    tone = {"not_met": "not_met", "near": "near", "unknown": "quiet"}[point.tone]
    return {"word": word, "tone": tone, "text": papers.words(point.text)}


def joined(join: Join) -> dict[str, object]:
    """Return how a name is joined as the templates take it, its code without a key unless it has one."""
    picture = Markup(code_svg(join.code)) if join.code else None
    return {"ssid": join.ssid, "network": join.network, "how": join.how, "code": picture}


def code_svg(code: str) -> str:
    """Return a code to be scanned as SVG, of a fixed size, with the quiet zone it needs."""
    made = segno.make(code, error="m")
    wide = made.symbol_size(border=4)[0]
    return made.svg_inline(scale=_QR_MM / wide, unit="mm", border=4, omitsize=False)


def _pain(pain: PainVerdict, seen: Seen, papers: Papers) -> dict[str, str]:
    return {
        "name": pain.name[:1].upper() + pain.name[1:],
        "words": pain.words,
        "planned": papers.words(pain.planned),
        "outcome": _OUTCOMES[seen],
        "tone": "quiet" if seen in ("heard", "unknown") else seen,
    }
