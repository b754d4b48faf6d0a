"""A wall that moves with its rooms: what is set right is what would be traced anew."""

from __future__ import annotations

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import Catalogue
from heathrise.core.design import Device, Wall, apply, put
from heathrise.core.signal.obstacles import grid_losses_db, losses_db, relief_grids, terrain_of
from heathrise.core.walling import drawn, follow
from heathrise.core.walling.hand import Move

from ..thorough import examples
from .plans import access_point
from .storeys_of_rooms import Cut, cuts, roomed


@given(cuts(), st.data())
@examples(25)
def test_losses_after_a_wall_moved_are_those_of_the_walls_as_they_are(
    catalogue: Catalogue, cut: Cut, data: st.DataObject
) -> None:
    design = roomed(cut)
    for k, (w, s, e, n) in enumerate(cut.rooms):
        design = apply(design, [put(access_point((w + e) / 2, (s + n) / 2, f"ap-{k}"))])
    devices = list(design.of(Device).values())
    models = catalogue.airs
    before = terrain_of(design, catalogue)
    for device in devices:
        for grid in relief_grids(before, "f", quick=True):
            grid_losses_db(before, device, models[device.model], "f", grid)
    wall = data.draw(st.sampled_from(sorted(design.of(Wall))))
    by = data.draw(st.sampled_from([0.25, -0.25, 0.5]))
    made = apply(design, drawn(design, Move(walls=(wall,), by=(by, by))))
    after_design = apply(made, follow(design, made).changes)
    after = terrain_of(after_design, catalogue)
    inner = all(0 < p[0] < max(b[2] for b in cut.rooms) for p in (design.of(Wall)[wall].a,))
    for device in after_design.of(Device).values():
        for grid in relief_grids(after, "f", quick=True):
            model = models[device.model]
            kept = grid_losses_db(after, device, model, "f", grid)
            traced = losses_db(after, device, model, "f", *grid.points)
            assert np.allclose(kept, traced, atol=2e-3), (inner, np.abs(kept - traced).max())


def test_a_wall_within_a_storey_is_set_right_and_not_traced_anew(catalogue: Catalogue) -> None:
    """The rooms beside it change, and so the storeys; slabs and roofs lie as they lay."""
    cut = Cut(
        ((0, 0, 5, 6), (5, 0, 12, 6)),
        (((0, 0), (12, 0)), ((12, 0), (12, 6)), ((12, 6), (0, 6)), ((0, 6), (0, 0)), ((5, 0), (5, 6))),
    )
    design = roomed(cut)
    before = terrain_of(design, catalogue)
    made = apply(design, drawn(design, Move(walls=("w5",), by=(0.4, 0))))
    after = terrain_of(apply(made, follow(design, made).changes), catalogue)
    assert after.storeys is not before.storeys and after.like is not None
    assert len(after.like.changed) == 2
    outer = apply(design, drawn(design, Move(walls=("w2",), by=(0.4, 0))))
    wider = terrain_of(apply(outer, follow(design, outer).changes), catalogue)
    assert wider.like is None or not wider.storeys.stand_as(before.storeys)
