"""For guests: slips with the codes of vouchers to be cut apart, and a notice that says how one comes on."""

from __future__ import annotations

from datetime import date

from markupsafe import Markup

from ...core.context.plan import Plan
from ...core.handover import wifi_code
from ...core.settings import PortalSheet, portal_sheets
from ...core.views.vouchers import SlipSheet, ssids_of
from .handover import code_svg
from .render import Papers, html_of, pdf_of, style


def vouchers_pdf(slips: SlipSheet, units: str, today: date) -> bytes:
    """Return a set of vouchers as slips to be cut apart. It is not kept anywhere."""
    html = html_of(
        "vouchers.html",
        style=style(),
        size=Papers(units).size,
        today=today.isoformat(),
        sheet=slips,
        join=_joins(slips.ssids[0] if slips.open else ""),
    )
    return pdf_of(html)


def notice_pdf(name: str, plan: Plan) -> bytes:
    """Return a notice for each page that guests meet: how one comes on, and what one agrees to."""
    site = plan.design.site
    html = html_of(
        "notice.html",
        style=style(),
        size=Papers(site.units).size,
        place=site.client_name or name,
        pages=[_page(plan, page) for page in portal_sheets(plan.design)],
    )
    return pdf_of(html)


def _page(plan: Plan, page: PortalSheet) -> dict[str, object]:
    names = ssids_of(plan, page.network)
    join = _joins(names[0][0] if names and names[0][1] else "")
    lines = (line.strip() for line in page.terms.splitlines())
    return {
        "sheet": page,
        "names": [ssid for ssid, _ in names],
        "join": join,
        "terms": [*filter(None, lines)],
    }


def _joins(ssid: str) -> Markup:
    """Return a code to be scanned that joins an open name; nothing for none."""
    # It is drawn here, of a text that is encoded.
    return Markup(code_svg(wifi_code(ssid, "open_portal")) if ssid else "")
