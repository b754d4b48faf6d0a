"""Rooms that come from walls, and walls that belong together, drawn by hand."""

from __future__ import annotations

import re
from collections.abc import Callable
from pathlib import Path

import pytest
from playwright.sync_api import expect

from heathrise.core.design import ClientGroup, Design, Opening, apply, put
from heathrise.formats.straighten import straighten

from ..core.storeys_of_rooms import Cut, roomed
from ..formats.test_straighten import Camera
from .conftest import Sheet, make_project

pytestmark = pytest.mark.browser

HOUSE = Cut(
    ((0, 0, 5, 6), (5, 0, 12, 6)),
    (((0, 0), (12, 0)), ((12, 0), (12, 6)), ((12, 6), (0, 6)), ((0, 6), (0, 0)), ((5, 0), (5, 6))),
)


@pytest.fixture
def house() -> Design:
    """Two rooms with a door between them, and eight phones in the larger."""
    door = Opening(id="d", wall="w5", kind="door", offset_m=1, width_m=0.9, construction="door-hollow")
    group = ClientGroup(id="c", space="s2", kind="phone", count=8)
    return apply(roomed(HOUSE), [put(door), put(group)])


@pytest.fixture
def house_sheet(house: Design, open_sheet: Callable[..., Sheet]) -> Sheet:
    sheet = open_sheet("/")
    sheet.page.goto(f"{sheet.server.base}/p/{make_project(sheet.server, house, 'Alderness')}/plan")
    sheet.page.wait_for_selector("[data-tally=price]")
    return sheet


def area(sheet: Sheet, space: str) -> float:
    """The area that the panel tells of a room."""
    sheet.page.keyboard.press("Escape")
    sheet.page.locator(f"[data-space={space}]").evaluate(
        "e => e.dispatchEvent(new MouseEvent('click', {bubbles: true}))"
    )
    return float(sheet.page.inner_text("[data-figure=area]").split()[0])


def choose_wall(sheet: Sheet, number: int, share: float = 0.3) -> None:
    sheet.press_in(f"[data-wall=w{number}]", 0.5 if number == 5 else share, share if number == 5 else 0.5)
    expect(sheet.page.locator(".inspector h2")).to_have_text("Wall")


def test_walls_typed_one_after_another_close_a_room(open_sheet: Callable[..., Sheet]) -> None:
    sheet = open_sheet("/")
    page = sheet.page
    sheet.begin("Wren Cottage")
    sheet.stage("plan")
    page.keyboard.press("w")
    left, top, wide, high = sheet.box("svg.sheet")
    x, y = left + wide * 0.3, top + high * 0.3
    page.mouse.click(x, y)
    for revision, (dx, dy, typed) in enumerate(
        [(200, 0, "6.2"), (0, 200, "4 180"), (-200, 0, "6.2 270")], start=2
    ):
        page.mouse.move(x + dx, y + dy)
        page.keyboard.type(typed[0])
        page.get_by_label("Length and angle").fill(typed)
        page.keyboard.press("Enter")
        sheet.saved(revision)
    expect(page.locator("[data-space]")).to_have_count(0)
    # The last wall is pressed at the first corner, and the line of walls is done.
    page.mouse.move(x + 3, y + 2)
    expect(page.locator("[data-snap=end]")).to_be_attached()
    page.mouse.click(x + 3, y + 2)
    sheet.saved(5)
    expect(page.locator("[data-space=room-1]")).to_be_attached()
    expect(page.get_by_test_id("tool-line")).to_contain_text("press where the wall starts")
    assert area(sheet, "room-1") == pytest.approx(24.8, abs=0.05)
    page.click("[aria-label=Undo]")
    sheet.saved(6)
    expect(page.locator("[data-space]")).to_have_count(0)
    expect(page.locator("[data-wall]")).to_have_count(3)


def test_any_shape_is_pressed_corner_by_corner(open_sheet: Callable[..., Sheet]) -> None:
    sheet = open_sheet("/")
    page = sheet.page
    sheet.begin("Wren Barn")
    sheet.stage("plan")
    page.keyboard.press("z")
    left, top, wide, high = sheet.box("svg.sheet")
    x, y = left + wide * 0.25, top + high * 0.25
    for dx, dy in ((0, 0), (300, 0), (300, 120), (150, 120), (150, 240), (0, 240)):
        page.mouse.move(x + dx, y + dy)
        page.mouse.click(x + dx, y + dy)
    page.keyboard.press("Enter")
    sheet.saved(2)
    expect(page.locator("[data-wall]")).to_have_count(6)
    expect(page.locator("[data-space]")).to_have_count(1)


def test_a_wall_dragged_takes_its_rooms_along_and_is_undone_in_one_step(house_sheet: Sheet) -> None:
    sheet, page = house_sheet, house_sheet.page
    assert (area(sheet, "s1"), area(sheet, "s2")) == (30, 42)
    choose_wall(sheet, 5)
    x, y = sheet.middle_of("[data-grip]")
    px = sheet.scale()
    page.mouse.move(x, y + 40)
    page.mouse.down()
    page.mouse.move(x + 2 * px, y + 40, steps=8)
    expect(page.get_by_test_id("tool-line")).to_contain_text("moved 2.00 m")
    page.mouse.up()
    sheet.saved(2)
    assert (area(sheet, "s1"), area(sheet, "s2")) == (42, 30)
    page.click("[aria-label=Undo]")
    sheet.saved(3)
    assert (area(sheet, "s1"), area(sheet, "s2")) == (30, 42)
    # The same with the keyboard: ten times a tenth of a metre.
    choose_wall(sheet, 5)
    page.locator("svg.sheet").focus()
    for _ in range(10):
        page.keyboard.press("ArrowLeft")
    sheet.saved(4)
    assert (area(sheet, "s1"), area(sheet, "s2")) == (24, 48)


def test_a_length_is_typed_on_the_drawing(house_sheet: Sheet) -> None:
    sheet, page = house_sheet, house_sheet.page
    choose_wall(sheet, 1)
    page.locator("[data-measure] button").click()
    page.get_by_label("Length and angle of this wall").fill("14")
    page.keyboard.press("Enter")
    sheet.saved(2)
    expect(page.locator("[data-measure]")).to_contain_text("14.00 m ∠ 90°")
    choose_wall(sheet, 5)
    page.get_by_label("Length", exact=True).fill("0.5")
    page.keyboard.press("Tab")
    expect(page.get_by_role("alert")).to_contain_text("the door in it is 0.90 m wide")
    sheet.saved(2)


def test_a_divided_room_asks_which_part_keeps_its_name(house_sheet: Sheet) -> None:
    sheet, page = house_sheet, house_sheet.page
    left, top, _, _ = sheet.box("[data-wall=w3]")
    px = sheet.scale()
    page.keyboard.press("w")
    x = left + 9 * px
    page.mouse.click(x, top)
    page.mouse.move(x, top + 3 * px)
    page.mouse.click(x, top + 6 * px)
    sheet.saved(2)
    asked = page.get_by_test_id("room-question")
    expect(asked).to_contain_text("Chamber 2 is divided")
    page.keyboard.press("Escape")
    assert area(sheet, "s2") == pytest.approx(24, abs=0.3)
    page.get_by_role("button", name=re.compile("^B, 18")).click()
    sheet.saved(3)
    expect(asked).to_have_count(0)
    assert area(sheet, "s2") == pytest.approx(18, abs=0.3)
    # The wall taken away again: two rooms that nothing parts, or one.
    page.locator("[data-wall=wall-1]").dispatch_event("click")
    page.get_by_role("button", name="Remove it").click()
    sheet.saved(4)
    expect(asked).to_contain_text("are they one room?")
    page.get_by_role("button", name=re.compile("One, Chamber 2$")).first.click()
    sheet.saved(5)
    assert area(sheet, "s2") == pytest.approx(42, abs=0.3)


def test_a_gap_is_pointed_at_and_closed_at_a_press(house_sheet: Sheet) -> None:
    sheet, page = house_sheet, house_sheet.page
    choose_wall(sheet, 2, 0.5)
    page.get_by_label("Divide it from its start at").fill("0.8")
    page.keyboard.press("Tab")
    page.get_by_role("button", name="Divide", exact=True).click()
    sheet.saved(2)
    page.get_by_role("button", name="Remove it").click()
    sheet.saved(3)
    gap = page.locator("[data-gap]")
    expect(gap).to_contain_text("0.80 m open")
    gap.press("Enter")
    asked = page.get_by_test_id("room-question")
    expect(asked).to_contain_text("a wall stops 0.80 m short")
    asked.get_by_role("button", name=re.compile("^Put a door")).click()
    sheet.saved(4)
    expect(gap).to_have_count(0)
    assert area(sheet, "s2") == 42


def spot(sheet: Sheet, x: float, y: float) -> tuple[float, float]:
    """Where a point of the house lies on the screen; its south-west corner is the zero."""
    left, top, _, high = sheet.box("[data-space=s1]")
    px = sheet.scale()
    return left + x * px, top + high - y * px


def frame(sheet: Sheet, *corners: float) -> None:
    west, south, east, north = corners
    sheet.page.keyboard.press("f")
    sheet.page.mouse.move(*spot(sheet, west, south))
    sheet.page.mouse.down()
    sheet.page.mouse.move(*spot(sheet, east, north), steps=4)
    sheet.page.mouse.up()


def test_many_are_framed_copied_in_a_row_moved_and_taken_away(house_sheet: Sheet) -> None:
    sheet, page = house_sheet, house_sheet.page
    frame(sheet, 4.5, -0.5, 12.5, 6.5)
    picks = page.get_by_test_id("picks")
    # The south and north walls reach beyond the frame.
    expect(picks).to_contain_text("2 walls")
    expect(picks).to_contain_text("1 room")
    expect(picks).to_contain_text("7.00 m × 6.00 m, 12.00 m of wall, 42.0 m²")
    frame(sheet, -0.5, -0.5, 12.5, 6.5)
    expect(picks).to_contain_text("5 walls")
    picks.get_by_label("To the east", exact=True).fill("12")
    picks.get_by_label("Times").fill("2")
    page.keyboard.press("Tab")
    picks.get_by_role("button", name="Copy 2 times in a row").click()
    sheet.saved(2)
    expect(page.locator("[data-wall]")).to_have_count(5 + 2 * 4)
    expect(page.locator("[data-space]")).to_have_count(6)
    expect(page.locator("[data-opening]")).to_have_count(3)
    page.click("[aria-label=Undo]")
    sheet.saved(3)
    expect(page.locator("[data-wall]")).to_have_count(5)
    # With the keyboard: everything, copied, put down beside the pointer, moved, and gone.
    for _ in range(4):
        page.get_by_role("button", name="Farther").click()
    page.locator("svg.sheet").focus()
    page.keyboard.press("Control+a")
    expect(picks).to_contain_text("7 chosen")
    page.keyboard.press("Control+c")
    page.mouse.move(*spot(sheet, 6, -8))
    page.keyboard.press("Control+v")
    sheet.saved(4)
    expect(picks).to_contain_text("7 chosen")
    expect(page.locator("[data-opening]")).to_have_count(2)
    expect(page.locator("[data-space]")).to_have_count(4)
    for _ in range(3):
        page.keyboard.press("Shift+ArrowDown")
    sheet.saved(5)
    page.keyboard.press("Delete")
    sheet.saved(6)
    expect(page.locator("[data-space]")).to_have_count(2)
    expect(picks).to_have_count(0)


def test_what_is_chosen_with_shift_is_dragged_together(house_sheet: Sheet) -> None:
    sheet, page = house_sheet, house_sheet.page
    choose_wall(sheet, 3)
    page.keyboard.down("Shift")
    sheet.press_in("[data-wall=w2]", 0.5, 0.5)
    page.keyboard.up("Shift")
    expect(page.get_by_test_id("picks")).to_contain_text("2 walls")
    sheet.pull("[data-picks-handle]", sheet.scale(), 0)
    sheet.saved(2)
    # What meets the north wall goes along with it: the room is 8 m wide in the south, 7 m in the north.
    assert area(sheet, "s2") == pytest.approx(45, abs=0.4)


def test_a_storey_is_copied_up_and_a_layer_is_locked(house_sheet: Sheet) -> None:
    sheet, page = house_sheet, house_sheet.page
    page.get_by_role("button", name="Storey up").click()
    page.get_by_role("button", name="Walls, doors and rooms").click()
    sheet.saved(2)
    expect(page.get_by_role("combobox", name="Floor")).to_contain_text("Ground, storey above")
    expect(page.locator("[data-space]")).to_have_count(2)
    expect(page.locator("[data-opening]")).to_have_count(1)
    page.get_by_test_id("layers").click()
    page.get_by_label("Walls locked").check()
    page.get_by_label("Doors and windows shown").uncheck()
    page.keyboard.press("Escape")
    expect(page.locator("[data-opening]")).to_have_count(0)
    expect(page.get_by_test_id("layers")).to_contain_text("1 hidden, 1 locked")
    sheet.press_in("[data-wall] >> nth=2", 0.3, 0.5)
    expect(page.locator(".inspector h2")).not_to_have_text("Wall")


def test_a_tape_is_laid_and_a_door_slides(house_sheet: Sheet) -> None:
    sheet, page = house_sheet, house_sheet.page
    page.keyboard.press(".")
    for x, y in ((0, 0), (0, 6), (12, 6)):
        page.mouse.move(*spot(sheet, x, y))
        page.mouse.click(*spot(sheet, x, y))
    expect(page.locator(".draft text")).to_have_text("18.0 m")
    page.keyboard.press("Escape")
    sheet.saved(1)
    page.mouse.click(*spot(sheet, 5, 1.45))
    expect(page.locator(".inspector h2")).to_have_text("Opening")
    sheet.pull("[data-grip]", 0, -2 * sheet.scale())
    sheet.saved(2)
    expect(page.get_by_label("From the wall's start")).to_have_value(re.compile(r"^(2.95|3|3.05) m"))


def test_heights_are_dragged_and_typed_in_the_section(house_sheet: Sheet) -> None:
    sheet, page = house_sheet, house_sheet.page
    page.get_by_role("button", name="Storey up").click()
    page.get_by_role("button", name="Outer walls, with their windows").click()
    sheet.saved(2)
    page.get_by_role("button", name="Section", exact=True).click()
    section = page.get_by_test_id("section")
    expect(section.locator("[data-cut-room]")).to_have_count(3)
    expect(page.locator("[data-cut]")).to_be_attached()
    page.get_by_role("combobox", name="Floor").click()
    page.get_by_role("option", name="Ground", exact=True).click()
    ceiling = section.get_by_label("Ceiling")
    expect(ceiling).to_have_value("2.7 m")
    foot, head = (sheet.box(f"[data-height={line}-f] .hit") for line in ("floor", "ceiling"))
    px = (foot[1] - head[1]) / 2.7
    x, y = sheet.middle_of("[data-height=ceiling-f] .grip")
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x, y - 0.5 * px, steps=4)
    expect(section.get_by_role("status")).to_contain_text("Ground: ceiling 3.")
    page.mouse.up()
    sheet.saved(3)
    assert 3.1 <= float(ceiling.input_value().split()[0]) <= 3.3
    # The storey above stands in its way now, and says so.
    expect(page.locator("[data-finding^=plan-ceiling]")).to_be_visible()
    page.get_by_role("combobox", name="Floor").click()
    page.get_by_role("option", name="Ground, storey above").click()
    section.get_by_label("Floor at").fill("3.6")
    page.keyboard.press("Tab")
    sheet.saved(4)
    expect(page.locator("[data-finding^=plan-ceiling]")).to_have_count(0)


def test_a_storey_is_dragged_over_another_and_the_cut_goes_elsewhere(house_sheet: Sheet) -> None:
    sheet, page = house_sheet, house_sheet.page
    page.get_by_role("button", name="Section", exact=True).click()
    section = page.get_by_test_id("section")
    expect(section).to_contain_text("A to B, 14.0 m")
    sheet.pull("[data-along=f]", -60, 0)
    sheet.saved(2)
    expect(section).to_contain_text("A to B, 14.0 m")
    expect(section.locator("[data-cut-room]")).to_have_count(2)
    section.get_by_role("button", name="Cut elsewhere").click()
    for x, y in ((2.5, -1), (2.5, 7)):
        page.mouse.move(*spot(sheet, x, y))
        page.mouse.click(*spot(sheet, x, y))
    expect(section.locator("[data-cut-room]")).to_have_count(1)
    expect(section.get_by_role("button", name="Along the building")).to_be_visible()


def test_a_photograph_at_a_slant_is_made_straight_and_checked(
    open_sheet: Callable[..., Sheet], tmp_path: Path
) -> None:
    """From nothing: the photograph, its four corners, a second distance, and a room drawn over it."""
    camera = Camera(yaw_deg=25, pitch_deg=-18, roll_deg=6, far_m=12)
    photograph = tmp_path / "plan.png"
    photograph.write_bytes(camera.photograph())
    sheet = open_sheet("/")
    page = sheet.page
    sheet.begin("Wren Lodge")
    sheet.stage("brief")
    sheet.tab("On the sheet")
    page.click("[data-part=picture] .head")
    page.get_by_test_id("plan-file").set_input_files(photograph)
    sheet.saved(2)
    page.click("[data-tool=plan_straighten]")
    left, top, wide, high = sheet.box("[data-layer=underlay] image")
    for u, v in camera.corners():
        page.mouse.move(left + u * wide, top + v * high)
        page.mouse.click(left + u * wide, top + v * high)
    page.get_by_label("Across").fill("8")
    page.get_by_label("Up", exact=True).fill("16' 5\"")
    page.get_by_role("button", name="Straighten").last.click()
    sheet.saved(3)
    # Two of the marks on the wall lie 5.5 m apart.
    left, top, wide, high = sheet.box("[data-layer=underlay] image")
    made = straighten(camera.photograph(), camera.corners(), 8.0, 5.0)
    px = wide / made.width_px / made.metres_per_px
    x = left + made.middle[0] * wide - 3 * px
    y = top + made.middle[1] * high
    page.click("[data-tool=plan_check]")
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 5.5 * px, y, steps=4)
    page.mouse.up()
    page.get_by_label("Known distance").fill("5.5")
    page.keyboard.press("Enter")
    expect(page.get_by_role("status").filter(has_text="On the plan they lie")).to_contain_text(
        "good enough to plan by"
    )


def test_a_storey_is_laid_over_another_by_two_common_points(house_sheet: Sheet) -> None:
    sheet, page = house_sheet, house_sheet.page
    page.get_by_role("button", name="Storey up").click()
    page.get_by_role("button", name="Walls, doors and rooms").click()
    sheet.saved(2)
    # The storey above, moved off by 3 m.
    page.locator("svg.sheet").focus()
    page.keyboard.press("Control+a")
    for _ in range(3):
        page.keyboard.press("Shift+ArrowRight")
    sheet.saved(3)
    page.keyboard.press("Escape")
    page.get_by_role("combobox", name="Floor").click()
    page.get_by_role("option", name="Ground", exact=True).click()
    page.get_by_role("button", name="Storey up").click()
    page.get_by_role("button", name="By two points that both have").click()
    for x, y in ((0, 0), (12, 6)):
        page.mouse.click(*spot(sheet, x, y))
    expect(page.get_by_test_id("tool-line")).to_contain_text("show the other storey")
    page.get_by_role("combobox", name="Floor").click()
    page.get_by_role("option", name="Ground, storey above").click()
    left, top, _, high = sheet.box("[data-space] >> nth=0")
    px = sheet.scale()
    south = top + high
    for dx, dy in ((0, 0), (12, 6)):
        page.mouse.click(left + dx * px, south - dy * px)
    sheet.saved(4)
    expect(page.get_by_test_id("tool-line")).to_contain_text("13.42 m apart here")
    expect(page.get_by_test_id("tool-line")).to_contain_text("0.0 %")


class Pressing:
    """A hand that counts: each press, key and figure that is typed, by what it was for."""

    def __init__(self, sheet: Sheet) -> None:
        self.sheet, self.page = sheet, sheet.page
        self.counts: dict[str, int] = {}
        self.what = ""

    def _one(self) -> None:
        self.counts[self.what] = self.counts.get(self.what, 0) + 1

    def key(self, key: str) -> None:
        self._one()
        self.page.keyboard.press(key)

    def at(self, x: float, y: float) -> None:
        self._one()
        self.page.mouse.move(x, y)
        self.page.mouse.click(x, y)

    def types(self, label: str, text: str, key: str = "Enter") -> None:
        self._one()
        self.page.get_by_label(label, exact=True).fill(text)
        self.key(key)


# A storey of 200 m2, 16 by 12.5 m: inner walls from where to where, doors, windows, a spot in each room.
STOREY_M = (16.0, 12.5)
INNER = (
    ((0, 7), (16, 7)),
    ((0, 5.2), (16, 5.2)),
    ((4.5, 7), (4.5, 12.5)),
    ((9, 7), (9, 12.5)),
    ((12.5, 7), (12.5, 12.5)),
)
INNER += (((5.5, 0), (5.5, 5.2)), ((8.5, 0), (8.5, 5.2)), ((12, 0), (12, 5.2)))
DOORS = ((2, 7), (6.5, 7), (11, 7), (14.5, 7), (2.5, 5.2), (7, 5.2), (10.5, 5.2), (14, 5.2), (0, 6.1))
WINDOWS = ((2, 12.5), (7, 12.5), (10.5, 12.5), (14, 12.5), (2.5, 0), (7, 0), (10, 0), (14, 0))
ROOMS = {
    "Kitchen": (2, 9.5),
    "Dining": (6.5, 9.5),
    "Study": (10.5, 9.5),
    "Bath": (14, 9.5),
    "Corridor": (8, 6.1),
    "Living": (2.5, 2.5),
    "Store": (7, 2.5),
    "Guest": (10, 2.5),
    "Bedroom": (14, 2.5),
}


def test_a_storey_of_two_hundred_square_metres_in_few_presses(open_sheet: Callable[..., Sheet]) -> None:
    sheet = open_sheet("/")
    page, hand = sheet.page, Pressing(sheet)
    sheet.begin("Wren Hall")
    sheet.stage("plan")
    hand.counts["a new project, its name, the plan"] = 4
    hand.what = "outer walls by two lengths"
    hand.key("o")
    left, top, *_ = sheet.box("svg.sheet")
    hand.at(left + 20, top + 20)
    page.mouse.move(left + 300, top + 300)
    page.keyboard.type("1")
    hand.types("Both lengths", "16 12.5")
    expect(page.locator("[data-space]")).to_have_count(1)
    page.get_by_role("button", name="Show the whole floor").click()
    hand._one()
    hand.key("Escape")

    def on(x: float, y: float) -> tuple[float, float]:
        west, north, _, deep = where
        px = deep / STOREY_M[1]
        return west + x * px, north + deep - y * px

    where = sheet.box("[data-space=room-1]")
    hand.what = "inner walls, from wall to wall"
    hand.key("w")
    for k, (a, b) in enumerate(INNER):
        hand.at(*on(*a))
        hand.at(*on(*b))
        expect(page.locator("[data-wall]")).to_have_count(4 + k + 1)
    expect(page.locator("[data-space]")).to_have_count(len(ROOMS))
    hand.what = "doors"
    hand.key("d")
    for door in DOORS:
        hand.at(*on(*door))
    hand.what = "windows"
    hand.key("n")
    for window in WINDOWS:
        hand.at(*on(*window))
    expect(page.locator("[data-opening]")).to_have_count(len(DOORS) + len(WINDOWS))
    hand.key("Escape")
    hand.what = "rooms named"
    for name, spot_m in ROOMS.items():
        hand.at(*on(*spot_m))
        hand.types("Name", name, "Tab")
    page.wait_for_timeout(500)
    expect(page.get_by_test_id("save-state")).to_contain_text("Saved")
    assert {t.split(",")[0] for t in page.locator("[data-room] title").all_text_contents()} == set(ROOMS)
    expect(page.locator("[data-tally=first] .value")).to_contain_text(f"of {len(ROOMS)}")
    # The table of docs/rules/walls.md.
    assert hand.counts == {
        "a new project, its name, the plan": 4,
        "outer walls by two lengths": 6,
        "inner walls, from wall to wall": 17,
        "doors": 10,
        "windows": 10,
        "rooms named": 27,
    }
    assert sum(hand.counts.values()) == 74
