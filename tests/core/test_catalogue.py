"""The catalogue's data: the trade's figures as they stand, and gear that makes sense."""

from __future__ import annotations

import pytest

from heathrise.core.base.bands import BANDS
from heathrise.core.catalogue import Catalogue, drawing_style, load_catalogue, poe_rank

LOSSES = """
plasterboard 3 4 5
foil-board 10 14 16
brick-single 6 10 12
brick-cavity 10 16 19
block-light 5 8 10
block-dense 9 14 16
concrete 18 26 29
stone 16 24 28
timber-clad 5 7 8
door-hollow 2 3 3
door-solid 4 6 7
glass-clear 2 3 4
glass-coated 13 18 20
metal 28 32 34
wet-wall 5 8 9
floor-timber 10 13 15
floor-concrete 18 24 27
"""

# class: reserved at the port, at the device, pairs
POE = {
    0: (15.4, 12.95, 2),
    1: (4.0, 3.84, 2),
    2: (7.0, 6.49, 2),
    3: (15.4, 12.95, 2),
    4: (30.0, 25.5, 2),
    5: (45, 40, 4),
    6: (60, 51, 4),
    7: (75, 62, 4),
    8: (90, 71.3, 4),
}


@pytest.mark.parametrize("row", LOSSES.strip().splitlines())
def test_losses_are_the_published_ones(catalogue: Catalogue, row: str) -> None:
    key, *losses = row.split()
    entry = catalogue.constructions[key]
    assert [entry.loss_db[band] for band in BANDS] == [float(x) for x in losses]


def test_every_construction_blocks_more_the_higher_the_band(catalogue: Catalogue) -> None:
    for entry in catalogue.constructions.values():
        assert entry.loss_db["2.4"] <= entry.loss_db["5"] <= entry.loss_db["6"], entry.id


@pytest.mark.parametrize("number", range(9))
def test_poe_classes_are_the_standard_s(number: int) -> None:
    kind = RULES.poe_classes[number]
    assert (kind.reserved_w, kind.device_w, kind.pairs) == POE[number]
    assert kind.device_v < kind.port_v
    assert kind.device_w < kind.reserved_w


def test_class_nought_stands_with_class_three() -> None:
    assert poe_rank(0) == poe_rank(3)
    assert [poe_rank(k) for k in range(1, 9)] == list(range(1, 9))


def test_powered_gear_stays_inside_its_class(catalogue: Catalogue) -> None:
    for model in (m for shelf in catalogue.devices.values() for m in shelf.values()):
        if model.power is not None:
            kind = RULES.poe_classes[model.power.poe_class]
            assert model.power.typical_w <= model.power.rated_w <= kind.device_w, model.id
            lower = [k for k in RULES.poe_classes.values() if poe_rank(k.number) < poe_rank(kind.number)]
            gives = any(g.poe_class is not None for g in model.ports)  # its class is for what it feeds too
            enough = all(k.device_w < model.power.rated_w for k in lower)
            assert enough or gives, f"{model.id} over-classed"


def test_radios_have_steps_between_their_ends(catalogue: Catalogue) -> None:
    found = {m.id for models in catalogue.devices.values() for m in models.values() if m.old}
    for key, model in catalogue.airs.items():
        assert set(model.radios) <= set(BANDS) and ("5" in model.radios or key in found)
        for radio in model.radios.values():
            span = radio.max_power_dbm - radio.min_power_dbm
            assert span > 0 and (span / radio.step_db) % 1 == 0
        assert ("6" in model.radios) == (model.generation in ("6E", "7"))


def test_dearer_switches_do_more(catalogue: Catalogue) -> None:
    for model in catalogue.switches.values():
        assert (model.budget_w > 0) == (model.powered_ports > 0), model.id
        assert model.powered_ports <= model.copper_ports
        assert (model.price > 0) == (model.old is None)


def test_every_powered_class_in_use_has_an_injector_and_a_switch(catalogue: Catalogue) -> None:
    wanted = {m.power.poe_class for shelf in catalogue.devices.values() for m in shelf.values() if m.power}
    for number in wanted:
        assert any(poe_rank(i.poe_class) >= poe_rank(number) for i in catalogue.injectors.values())
        assert any(
            g.poe_class is not None and poe_rank(g.poe_class) >= poe_rank(number)
            for s in catalogue.switches.values()
            for g in s.groups
        )


def test_ids_are_their_keys(catalogue: Catalogue) -> None:
    plain = set(type(catalogue).model_fields) - {
        "rules",
        "roles",
        "devices",
        "usual_networks",
        "matters",
        "practices",
    }
    shelves = [*(getattr(catalogue, name) for name in plain), *catalogue.devices.values()]
    for shelf in shelves:
        for key, entry in shelf.items():
            assert entry.id == key and entry.label


RULES = load_catalogue().rules


def test_whatever_is_put_on_the_shelf_of_constructions_is_drawn_and_can_be_corrected(
    catalogue: Catalogue,
) -> None:
    """A wall without a pen is drawn as another; one without a correction could not be measured."""
    drawn = {k for k, c in catalogue.constructions.items() if c.kind == "wall"}
    assert drawn <= set(drawing_style().pens)
    assert set(catalogue.rules.table("signal.correction_db")) == set(catalogue.constructions)
