"""The lay by hand: dragged, slid, caught, pushed by keys, turned, put aside and taken back; nothing is lost."""

from __future__ import annotations

import json
import re
import urllib.request
from collections.abc import Callable
from typing import Any

import pytest
from playwright.sync_api import Browser, Locator, Page, Route, expect
from shapely import Polygon
from tools.own_page import asking

pytestmark = pytest.mark.browser

GARMENTS = {"Bow ties and cuffs": 4, "Boxy overshirt": 7, "Six-gore skirt": 8}


def ask(address: str, method: str, path: str, body: Any = None) -> Any:
    """One request beside the page, as another window makes it."""
    sent = None if body is None else json.dumps(body).encode()
    headers = {**asking(address), "Origin": address.rstrip("/")}
    with urllib.request.urlopen(urllib.request.Request(f"{address}api{path}", sent, headers, method=method)) as answer:
        return json.load(answer)


def lay(address: str, garment: str) -> dict[str, Any]:
    found: dict[str, Any] = ask(address, "GET", f"/projects/{GARMENTS[garment]}/lay")["lay"]
    return found


def at_table(page: Page, address: str, garment: str) -> None:
    page.goto(f"{address}projects/{GARMENTS[garment]}/lay")
    expect(page.locator(".laid").first).to_be_visible()


def piece(page: Page, pinned: str) -> Locator:
    return page.locator(f'.laid[data-pinned="{pinned}"]')


def middle(found: Locator) -> tuple[float, float]:
    box = found.bounding_box()
    assert box is not None
    return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


def drag(page: Page, found: Locator, dx: float, dy: float, *, seen: Callable[[], None] | None = None) -> None:
    """Carried by so many pixels, slowly enough that the picture goes along."""
    x, y = middle(found)
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 8 if dx >= 0 else x - 8, y, steps=2)
    page.mouse.move(x + dx, y + dy, steps=8)
    expect(page.locator(".in-hand")).to_have_count(1)
    page.wait_for_timeout(150)
    if seen is not None:
        seen()
    page.mouse.up()
    expect(page.locator(".in-hand")).to_have_count(0)


def origins(found: dict[str, Any]) -> dict[str, list[float]]:
    return {shape["pinned"]: shape["origin"] for shape in found["pinned"]["shapes"]}


def sound(found: dict[str, Any]) -> None:
    """No two pieces of the opened lay lie on each other."""
    shapes = [Polygon(shape["outline"]).buffer(-0.06) for shape in found["opened"]["shapes"]]
    assert not any(a.intersects(b) for k, a in enumerate(shapes) for b in shapes[k + 1 :])


def test_a_piece_is_dragged_slides_along_its_neighbours_and_catches_on_the_edge(page: Page, demo: str) -> None:
    at_table(page, demo, "Six-gore skirt")
    before = lay(demo, "Six-gore skirt")
    pocket = next(s["pinned"] for s in before["pinned"]["shapes"] if s["piece"] == "Pocket bag")

    def lit() -> None:
        assert page.locator(".lit").count() > 5
        assert page.locator(f'.laid.lifted[data-pinned="{pocket}"]').count() == 1

    drag(page, piece(page, pocket), 260, 40, seen=lit)
    expect(page.get_by_role("heading", level=1)).to_contain_text("By hand")
    after = lay(demo, "Six-gore skirt")
    assert origins(after)[pocket] != origins(before)[pocket]
    assert after["length"]["mm"] > before["length"]["mm"]
    sound(after)
    # onto its neighbours: as near as it may
    drag(page, piece(page, pocket), -500, 120)
    sound(lay(demo, "Six-gore skirt"))
    # to the cut end and the far selvage, by far: it stays on the cloth, and says what it caught on
    told: list[str | None] = []
    drag(
        page,
        piece(page, pocket),
        500,
        -600,
        seen=lambda: told.append(page.locator(".in-hand").get_attribute("data-caught")),
    )
    assert told and told[0] is not None and "selvage" in told[0]
    found = lay(demo, "Six-gore skirt")
    shape = next(s for s in found["pinned"]["shapes"] if s["pinned"] == pocket)
    top = max(y for _, y in shape["outline"])
    assert top == pytest.approx(found["pinned"]["high"], abs=0.1)
    sound(found)


def test_keys_push_turn_lock_and_put_aside_and_undo_reaches_over_a_reload(page: Page, demo: str) -> None:
    at_table(page, demo, "Six-gore skirt")
    before = lay(demo, "Six-gore skirt")
    last = max(before["pinned"]["shapes"], key=lambda s: max(x for x, _ in s["outline"]))["pinned"]
    piece(page, last).focus()
    page.keyboard.press("Shift+ArrowRight")
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("heading", level=1)).to_contain_text("By hand")
    expect(page.locator(".facts")).to_contain_text("from the cut end")

    def moved_by(mm: float) -> Callable[[], bool]:
        return lambda: abs(origins(lay(demo, "Six-gore skirt"))[last][0] - origins(before)[last][0] - mm) < 0.01

    _until(page, moved_by(11.0))
    expect(piece(page, last)).to_be_focused()
    page.keyboard.press("l")
    expect(piece(page, last)).to_have_attribute("aria-label", re.compile("locked"))
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("alert")).to_contain_text("is locked")
    page.keyboard.press("l")
    expect(piece(page, last)).not_to_have_attribute("aria-label", re.compile("locked"))
    page.keyboard.press("a")
    tray = page.get_by_role("region", name="The tray")
    expect(tray).to_be_visible()
    expect(page.get_by_role("region", name="Rules it breaks")).to_contain_text("are laid")
    tray.get_by_role("button", name=re.compile("^Lay ")).click()
    expect(tray).to_have_count(0)
    page.reload()
    expect(page.locator(".laid").first).to_be_visible()
    for _ in range(6):
        page.keyboard.press("Control+z")
        expect(page.locator(".undo-told")).to_contain_text("Taken back")
    _until(page, lambda: lay(demo, "Six-gore skirt")["own"] == "")
    assert origins(lay(demo, "Six-gore skirt")) == origins(before)


def _until(page: Page, true: Callable[[], bool], tries: int = 40) -> None:
    for _ in range(tries):
        if true():
            return
        page.wait_for_timeout(100)
    assert true()


def test_turned_turned_over_and_off_its_grain_on_purpose(page: Page, demo: str) -> None:
    at_table(page, demo, "Six-gore skirt")
    key = next(s["pinned"] for s in lay(demo, "Six-gore skirt")["pinned"]["shapes"] if s["piece"] == "Waistband")
    piece(page, key).click()
    page.get_by_role("button", name="By degrees …").click()
    page.get_by_label("Degrees").fill("4")
    page.get_by_role("button", name="to the left").click()
    broken = page.get_by_role("region", name="Rules it breaks")
    expect(broken).to_contain_text("4° off its grain")
    expect(broken).to_contain_text("twist by about")
    expect(piece(page, key)).to_have_class(re.compile("broken"))
    broken.get_by_role("button", name="It is meant so").click()
    expect(broken.get_by_role("button", name="Accepted: not after all")).to_be_visible()
    page.keyboard.press("Escape")
    piece(page, key).focus()
    page.keyboard.press("o")
    _until(
        page, lambda: any(s["mirrored"] for s in lay(demo, "Six-gore skirt")["pinned"]["shapes"] if s["pinned"] == key)
    )


def test_several_are_moved_as_one(page: Page, demo: str) -> None:
    at_table(page, demo, "Six-gore skirt")
    before = lay(demo, "Six-gore skirt")
    bags = [s["pinned"] for s in before["pinned"]["shapes"] if s["piece"] == "Pocket bag"][:2]
    page.get_by_role("button", name="Several").click()
    for key in bags:
        piece(page, key).click()
    expect(page.locator(".facts")).to_contain_text("2 pieces chosen")
    drag(page, piece(page, bags[0]), 330, 0)
    _until(page, lambda: lay(demo, "Six-gore skirt")["own"] != "")
    after = lay(demo, "Six-gore skirt")
    (a, b), (c, d) = (([origins(one)[key] for key in bags]) for one in (before, after))
    assert [c[0] - a[0], c[1] - a[1]] == pytest.approx([d[0] - b[0], d[1] - b[1]], abs=0.01) and c != a
    sound(after)


def test_everything_begins_on_the_tray_and_is_dragged_onto_the_cloth(page: Page, demo: str) -> None:
    at_table(page, demo, "Six-gore skirt")
    page.get_by_role("button", name="From the tray").click()
    tray = page.get_by_role("region", name="The tray")
    expect(tray.locator(".on-tray")).to_have_count(3)
    expect(page.locator(".laid")).to_have_count(0)
    x, y = middle(tray.get_by_role("img", name=re.compile("^Gore")))
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 20, y - 60, steps=3)
    page.mouse.move(300, 400, steps=6)
    expect(page.locator(".in-hand")).to_have_count(1)
    page.mouse.up()
    expect(page.locator(".laid")).to_have_count(1)
    found = lay(demo, "Six-gore skirt")
    assert [s["piece"] for s in found["pinned"]["shapes"]] == ["Gore"]
    assert {one["name"]: one["count"] for one in found["tray"]}["Gore"] == 5


def test_a_drag_let_go_before_any_answer_comes_is_not_lost(page: Page, demo: str) -> None:
    at_table(page, demo, "Six-gore skirt")
    before = lay(demo, "Six-gore skirt")
    key = next(s["pinned"] for s in before["pinned"]["shapes"] if s["piece"] == "Pocket bag")

    def slowly(route: Route) -> None:
        page.wait_for_timeout(120)
        route.continue_()

    page.route(re.compile("/lay/near"), slowly)
    x, y = middle(piece(page, key))
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 300, y + 20, steps=3)
    page.mouse.up()
    _until(page, lambda: origins(lay(demo, "Six-gore skirt"))[key] != origins(before)[key])
    page.unroute(re.compile("/lay/near"))
    sound(lay(demo, "Six-gore skirt"))


def test_every_fold_is_drawn_as_it_lies_and_told_how_to_fold(page: Page, demo: str) -> None:
    folds = ["open", "lengthwise", "partial", "double", "crosswise", "combination"]
    number = GARMENTS["Six-gore skirt"]
    ask(demo, "PATCH", f"/projects/{number}/cloth", {"bars_along": [], "bars_across": []})
    for one in ask(demo, "GET", f"/projects/{number}")["pieces"]:
        ask(demo, "PATCH", f"/pieces/{one['id']}", {"centred": False})
        if one["name"] == "Gore":
            ask(demo, "DELETE", f"/pieces/{one['id']}")
    ask(demo, "PATCH", f"/projects/{number}/lay", {"folds": folds})
    page.goto(f"{demo}projects/{number}/lay")
    page.get_by_role("button", name="Lay again").click()
    ways = page.get_by_role("region", name="Other ways to lay it")
    expect(ways.get_by_role("button").filter(has_text="both selvages to the middle")).to_be_visible(timeout=30_000)
    drawn = {
        "single layer": {"selvage": 2},
        "folded selvage to selvage": {"fold": 1},
        "one selvage folded up": {"fold": 1},
        "both selvages to the middle": {"fold": 2, "meeting-line": 1},
        "folded end to end": {"fold": 1, "selvage": 2},
    }
    for name, lines in drawn.items():
        ways.get_by_role("button").filter(has_text=name).first.click()
        expect(page.get_by_role("heading", level=1)).to_contain_text(name)
        for kind, count in lines.items():
            expect(page.locator(f".cloth-on-table line.{kind}")).to_have_count(count)
        page.get_by_text("Folding", exact=True).click()
        steps = page.get_by_role("region", name="How to fold it")
        expect(steps.get_by_role("listitem").nth(1)).to_be_visible()
        page.get_by_text("Ways", exact=True).click()
        if name != "single layer":
            pinned = page.locator(".laid").count()
            page.get_by_text("opened out").click()
            expect(page.locator(".crease").first).to_be_attached()
            assert page.locator(".laid").count() >= pinned
            two = page.locator(".laid").first
            two.click()
            key = two.get_attribute("data-pinned")
            copies = page.locator(f'.laid[data-pinned="{key}"]').count()
            expect(page.locator(".laid.chosen")).to_have_count(copies)
            page.get_by_text("as pinned").click()
    # a stretch of its own behind a folded one
    ways.get_by_role("button").filter(has_text="folded selvage to selvage").first.click()
    page.get_by_text("Folding", exact=True).click()
    steps = page.get_by_role("region", name="How to fold it")
    steps.get_by_role("button", name="Add it").click()
    expect(steps).to_contain_text("The last stretch is empty")
    key = page.locator(".laid").first.get_attribute("data-pinned") or ""
    piece(page, key).focus()
    page.keyboard.press("a")
    x, y = middle(page.locator(".on-tray svg").first)
    to = page.locator("line.lay-end").bounding_box()
    assert to is not None
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 10, y - 60, steps=3)
    page.mouse.move(to["x"] + 60, to["y"] + to["height"] - 60, steps=8)
    expect(page.locator(".in-hand")).to_have_count(1)
    page.wait_for_timeout(300)
    page.mouse.up()
    expect(page.get_by_role("heading", level=1)).to_contain_text("folded and open stretches")
    expect(page.locator(".cloth-on-table line.cut")).to_have_count(1)
    expect(steps.get_by_role("heading", level=3)).to_have_count(2)


def test_hems_lie_on_the_border_and_what_is_left_of_it_is_told(page: Page, demo: str) -> None:
    page.goto(f"{demo}projects/{GARMENTS['Bow ties and cuffs']}/lay")
    page.get_by_role("button", name="Lay the pieces").click()
    expect(page.locator(".facts")).to_contain_text("Of the border along the near selvage", timeout=30_000)
    for shape in lay(demo, "Bow ties and cuffs")["opened"]["shapes"]:
        low = min(y for _, y in shape["outline"])
        assert (low == pytest.approx(10, abs=0.1)) if shape["piece"] == "Cuff" else low > 200
    # on Cloth it is told which selvage, how deep, and what it is
    page.goto(f"{demo}projects/{GARMENTS['Bow ties and cuffs']}/cloth")
    page.get_by_role("button", name="Flaws").click()
    expect(page.get_by_label("How deep, from the edge of the cloth")).to_have_value("27.0 cm")


@pytest.mark.timed
def test_closing_up_is_stopped_and_goes_on_over_a_reload(page: Page, demo: str) -> None:
    number = GARMENTS["Boxy overshirt"]
    ask(demo, "PATCH", f"/projects/{number}/lay", {"lay_seconds": 20})
    at_table(page, demo, "Boxy overshirt")
    before = lay(demo, "Boxy overshirt")
    last = max(before["pinned"]["shapes"], key=lambda s: max(x for x, _ in s["outline"]))["pinned"]
    piece(page, last).focus()
    for _ in range(3):
        page.keyboard.press("Shift+ArrowRight")
    _until(page, lambda: lay(demo, "Boxy overshirt")["length"]["mm"] > before["length"]["mm"] + 29)
    page.get_by_role("button", name="Close up …").click()
    page.get_by_text("Search on: anywhere but what is locked").click()
    enough = page.get_by_role("button", name="Good enough")
    expect(enough).to_be_visible()
    page.reload()
    expect(page.locator(".search")).to_be_visible(timeout=30_000)

    def shorter() -> bool:
        # on a machine that is busy the first shorter lay may take its time
        job = ask(demo, "GET", f"/projects/{number}")["job"]
        return bool(job["length"] and job["length"]["mm"] < before["length"]["mm"] + 29)

    _until(page, shorter, tries=150)
    enough.click()
    expect(page.get_by_role("button", name="Lay again")).to_be_enabled(timeout=30_000)
    after = lay(demo, "Boxy overshirt")
    assert after["own"] and after["length"]["mm"] < before["length"]["mm"] + 29
    sound(after)


def test_lays_are_named_compared_and_put_away(page: Page, demo: str) -> None:
    at_table(page, demo, "Six-gore skirt")
    page.get_by_role("button", name="Lock all").click()
    name = page.get_by_label("This lay is called")
    expect(name).to_have_value("By hand")
    name.fill("Bars in the middle")
    name.press("Enter")
    expect(page.get_by_role("heading", level=1)).to_contain_text("Bars in the middle")
    page.get_by_role("button", name="Compare").click()
    table = page.get_by_role("table")
    expect(table.get_by_role("row").filter(has_text="Bars in the middle")).to_contain_text("nothing")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Put Bars in the middle away").click()
    page.get_by_role("button", name="Put away", exact=True).click()
    expect(page.get_by_role("heading", level=1)).not_to_contain_text("Bars in the middle")


def test_another_window_follows(page: Page, demo: str) -> None:
    at_table(page, demo, "Six-gore skirt")
    before = lay(demo, "Six-gore skirt")
    key = before["pinned"]["shapes"][0]["pinned"]
    ask(demo, "POST", f"/projects/8/lays/{before['lay_id']}/hand", {"do": "aside", "keys": [key]})
    expect(page.get_by_role("region", name="The tray")).to_be_visible()
    expect(piece(page, key)).to_have_count(0)


def test_near_and_far_the_tape_and_the_map(page: Page, demo: str) -> None:
    at_table(page, demo, "Six-gore skirt")
    picture = page.locator(".lay-picture svg")
    scale = float(picture.get_attribute("data-scale") or 0)
    page.get_by_role("button", name="Nearer").click()
    page.get_by_role("button", name="Nearer").click()
    expect(page.locator(".map-of-cloth")).to_be_visible()
    assert float(picture.get_attribute("data-scale") or 0) == pytest.approx(scale * 1.25**2, rel=0.01)
    page.get_by_role("button", name="whole lay").click()
    expect(page.locator(".map-of-cloth")).to_have_count(0)
    page.locator(".laid").first.focus()
    page.keyboard.press("+")
    expect(page.locator(".map-of-cloth")).to_be_visible()
    page.keyboard.press("0")
    expect(page.locator(".map-of-cloth")).to_have_count(0)
    page.get_by_role("button", name="Tape").click()
    box = picture.bounding_box()
    assert box is not None
    page.mouse.click(box["x"] + 100, box["y"] + 200)
    page.mouse.click(box["x"] + 100 + 500 * scale, box["y"] + 200)
    expect(page.locator(".tape-measure text")).to_have_text(re.compile(r"^(49\.[89]|50\.[012]) cm$"))


def test_on_a_tablet_a_finger_drags_and_everything_can_be_touched(
    browser: Browser, browser_context_args: dict[str, Any], demo: str
) -> None:
    context = browser.new_context(
        **{**browser_context_args, "viewport": {"width": 820, "height": 1180}}, has_touch=True
    )
    page = context.new_page()
    at_table(page, demo, "Six-gore skirt")
    before = lay(demo, "Six-gore skirt")
    key = next(s["pinned"] for s in before["pinned"]["shapes"] if s["piece"] == "Pocket bag")
    piece(page, key).tap()
    expect(page.locator(".facts")).to_contain_text("Pocket bag")
    for button in page.locator(".hands button, .gestures button, .zoom button").all():
        box = button.bounding_box()
        assert box is not None and box["height"] >= 40 and box["width"] >= 40, button.inner_text()
    x, y = middle(piece(page, key))
    touch = context.new_cdp_session(page)

    def finger(kind: str, at: list[dict[str, float]]) -> None:
        touch.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": at})

    finger("touchStart", [{"x": x, "y": y}])
    for k in range(1, 9):
        finger("touchMove", [{"x": x + 25 * k, "y": y + 3 * k}])
        page.wait_for_timeout(20)
    expect(page.locator(".in-hand")).to_have_count(1)
    finger("touchEnd", [])
    expect(page.locator(".in-hand")).to_have_count(0)
    after = lay(demo, "Six-gore skirt")
    assert origins(after)[key] != origins(before)[key]
    sound(after)
    # two fingers on the cloth
    box = page.locator(".lay-picture").bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] - 60, box["y"] + 120
    finger("touchStart", [{"x": x - 20, "y": y, "id": 1}, {"x": x + 20, "y": y, "id": 2}])
    for k in range(1, 6):
        finger("touchMove", [{"x": x - 20 - 12 * k, "y": y, "id": 1}, {"x": x + 20, "y": y + 10 * k, "id": 2}])
        page.wait_for_timeout(30)
    finger("touchEnd", [])
    _until(page, lambda: float(page.locator(".lay-picture").get_attribute("data-zoom") or 1) > 1.2)
    context.close()


def test_the_whole_way_by_keys(page: Page, demo: str) -> None:
    at_table(page, demo, "Six-gore skirt")
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Keys")).to_contain_text("aside, onto the tray")
    page.keyboard.press("Escape")
    for _ in range(60):
        page.keyboard.press("Tab")
        if page.evaluate("document.activeElement.classList.contains('laid')"):
            break
    first = page.evaluate("document.activeElement.dataset.pinned")
    page.keyboard.press("PageDown")
    second = page.evaluate("document.activeElement.dataset.pinned")
    assert first and second and first != second
    expect(piece(page, second)).to_have_attribute("aria-pressed", "true")
    page.keyboard.press("a")
    lay_it = page.get_by_role("button", name=re.compile("^Lay [A-Z]"))
    expect(lay_it).to_be_visible()
    lay_it.focus()
    page.keyboard.press("Enter")
    expect(lay_it).to_have_count(0)
