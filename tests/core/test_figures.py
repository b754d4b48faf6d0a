"""Figures of the trade: each stands once, has a source, is used, and can be seen differently."""

from __future__ import annotations

import re
from pathlib import Path

import pytest

import heathrise
from heathrise.core.catalogue import Catalogue, Rules, load_catalogue
from heathrise.core.context.effective_rules import in_force
from heathrise.core.context.integrity import check
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, DesignError, OwnFigure, apply, put
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.formats.rules_document import _formulas, rules_document

SOURCE = Path(heathrise.__file__).parent
RULES = load_catalogue().rules
DOCUMENT = Path(__file__).parents[2] / "docs" / "rules.md"
_ASKED = re.compile(
    r'f?"((?:brief|plan|camera|signal|bands|cabling|power|rack|settings|far|order|install|handover)\.[^"]+)"'
)


def _paths_in_code() -> dict[str, Path]:
    found: dict[str, Path] = {}
    for module in [*(SOURCE / "core").rglob("*.py"), *(SOURCE / "controller").rglob("*.py")]:
        for path in _ASKED.findall(module.read_text("utf-8")):
            found[re.split(r"\.?\{", path)[0]] = module
    return found


def test_the_code_asks_for_figures_that_stand_and_every_figure_is_asked_for() -> None:
    asked = _paths_in_code()
    for path, module in asked.items():
        assert any(f == path or f.startswith(f"{path}.") for f in RULES.figures), (path, module)
    for figure in RULES.figures:
        assert any(figure == a or figure.startswith(f"{a}.") for a in asked), figure


def test_docs_say_what_the_data_says_and_name_modules_that_stand() -> None:
    assert DOCUMENT.read_text("utf-8") == rules_document(RULES), "heathrise rules > docs/rules.md"
    for row in _formulas():
        for module in row["modules"]:
            assert (SOURCE / "core" / module).exists(), row


def test_the_project_comes_before_the_firm_and_the_firm_before_what_is_shipped() -> None:
    path = "cabling.space_c.attic"
    firm = RULES.by_firm({path: 50.0})
    project = firm.by_project({path: 55.0})
    seen = [(r[path], r.used(path)[0].whose) for r in (RULES, firm, project)]
    assert seen == [(45, "shipped"), (50, "firm"), (55, "project")]
    assert project.by_project({})[path] == 50 and firm.own("firm") == {path: 50.0}
    assert project.used(path)[0].value == "55\u00a0°C"


@pytest.mark.parametrize(
    ("path", "value", "says"),
    [
        ("signal.met_share", 1.2, "between 0.5 and 1"),
        ("signal.met_share", "most", "a number"),
        ("signal.contours_dbm", (-80.0, -60.0), "5 numbers"),
        ("bands.planned_24", 6.0, "a list"),
        ("cabling.required_category.7", "8", "one of 5, 5e, 6, 6A"),
        ("power.poe.4.standard", "802.3zz", "is fixed"),
        ("cabling.attic", 40.0, "there is no figure"),
    ],
)
def test_a_value_that_cannot_stand_is_refused_with_its_place(
    path: str, value: float | str | tuple[float, ...], says: str, home: Design, catalogue: Catalogue
) -> None:
    after = apply(home, [put(OwnFigure(id="f", figure=path, value=value))])
    with pytest.raises(DesignError, match=says) as refused:
        check(after, catalogue)
    assert refused.value.problems[0].where.startswith("own_figure[f]")
    assert RULES.by_firm({path: value}).own("firm") == {}


def test_one_figure_is_not_seen_in_two_ways(home: Design, catalogue: Catalogue) -> None:
    twice = [put(OwnFigure(id=k, figure="signal.met_share", value=0.9)) for k in ("a", "b")]
    with pytest.raises(DesignError, match="stands twice"):
        check(apply(home, twice), catalogue)


def test_a_figure_of_the_firm_is_seen_in_a_finding(school: Design, catalogue: Catalogue) -> None:
    """As shipped a pipe is filled to 31 or 40 %; the firm wants 20, the project is content with 30."""

    def duct(under: Catalogue, design: Design = school) -> tuple[float | None, str, str]:
        found = evaluate(Plan(design, under, quick=True)).findings
        finding = next(f for f in found if f.id.startswith("cable-duct"))
        used = next(u for u in finding.used if u.figure.startswith("cabling.fill"))
        return finding.limit, used.value, used.whose

    shipped = duct(catalogue)
    assert shipped[2] == "shipped"
    path = "cabling.fill_share." + ("3" if shipped[0] == 40 else "2" if shipped[0] == 31 else "1")
    firm = catalogue.ruled_by(catalogue.rules.by_firm({path: 0.2}))
    assert duct(firm) == (20, "20 %", "firm")
    own = apply(school, [put(OwnFigure(id="f", figure=path, value=0.3))])
    assert duct(firm, own) == (30, "30 %", "project")


def test_figures_in_force_are_one_object_for_one_design(home: Design, catalogue: Catalogue) -> None:
    own = apply(home, [put(OwnFigure(id="f", figure="signal.met_share", value=0.9))])
    assert in_force(home, catalogue) is catalogue
    ruled = in_force(own, catalogue)
    assert in_force(own, catalogue) is ruled and in_force(own, ruled) is ruled
    assert in_force(home, ruled).rules.own("project") == {}


def test_data_that_contradicts_itself_is_refused() -> None:
    bad = RULES.figures["signal.met_share"].model_copy(update={"shipped": 3.0})
    assert bad.wrong(3.0) is not None
    assert isinstance(RULES, Rules) and RULES.source("signal.met_share") == "planning practice"
