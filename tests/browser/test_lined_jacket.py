"""A lined jacket in inches, from an empty home, by mouse and keys: three cloths, each laid and bought."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Locator, Page, Route, expect

from .by_hand import pick
from .test_screens import begin
from .test_whole_way import saved

pytestmark = pytest.mark.browser

#: So many values may have to be typed for a jacket's front and back, three cloths and a swatch.
MOST_TYPED = 50


class Maker:
    """Somebody at the page; counts what is typed."""

    def __init__(self, page: Page) -> None:
        self.page, self.typed = page, 0

    def enter(self, label: str, text: str) -> None:
        self.into(self.page.get_by_label(label, exact=True), text)

    def into(self, field: Locator, text: str) -> None:
        field.fill(text)
        field.press("Enter")
        self.typed += 1
        saved(self.page)

    def stage(self, name: str) -> None:
        self.page.get_by_role("link", name=name, exact=True).click()

    def cloth(self, name: str) -> None:
        link = self.page.get_by_role("navigation", name="Cloths of this garment").get_by_role("link", name=name)
        link.click()
        # nobody types before the other cloth is shown
        expect(link).to_have_attribute("aria-current", "true")

    def beside(self, role: str, name: str) -> None:
        """Another cloth beside what is there, by keys."""
        self.page.get_by_label("Put beside it").select_option(role)
        self.page.get_by_label("Its name").fill(name)
        self.page.get_by_label("Its name").press("Enter")
        self.typed += 1

    def piece(self, name: str, rows: list[tuple[str, ...]], tick: str) -> None:
        """A piece off the paper, by keys alone."""
        page = self.page
        page.get_by_role("button", name="Read off with a tape").press("Enter")
        page.get_by_label("Name", exact=True).fill(name)
        page.get_by_label(re.compile(tick)).check()
        page.get_by_label("Seam allowance to add").fill("5/8")
        page.get_by_label("station 1, along").focus()
        for row in rows:
            for value in row:
                page.keyboard.press("Control+a")
                page.keyboard.type(value)
                page.keyboard.press("Enter")
                self.typed += 1
        self.typed += 2
        page.get_by_role("button", name="Keep this piece").click()
        expect(page.get_by_role("button", name=re.compile(f"^{name}, "))).to_be_visible()


def widths(maker: Maker, text: str) -> None:
    """Three readings, one after another without waiting: none takes back the one before."""
    page = maker.page
    for place in (1, 2, 3):
        field = page.get_by_label(f"Width, reading {place}")
        field.fill(text)
        field.press("Enter")
        maker.typed += 1
    for place in (1, 2, 3):
        expect(page.get_by_label(f"Width, reading {place}")).to_have_value(f"{text} in")
    expect(page.locator(".saved")).to_have_attribute("data-state", "saved")


def test_another_cloth_is_meant_on_the_page_that_is_on_its_way(page: Page, own: str) -> None:
    begin(page, own, "Lined jacket")
    page.get_by_role("tab", name="What is cut from what").click()
    maker = Maker(page)
    maker.beside("lining", "Lining")
    expect(page.locator(".which-cloths")).to_contain_text("Lining")
    maker.stage("Cloth")
    expect(page.get_by_label("Width, reading 1")).to_be_visible()
    held: list[Route] = []
    free = False
    page.route("**/assets/TrueStage-*.js", lambda route: route.continue_() if free else held.append(route))
    # a new window, which has not fetched that page yet; two touches so quick that nothing is drawn between them
    page.reload()
    expect(page.get_by_label("Width, reading 1")).to_be_visible()
    page.evaluate(
        """() => {
          document.querySelector('.rail-stage[href$="/true"]').click();
          document.querySelector('.cloths a:not([aria-current])').click();
        }"""
    )
    free = True
    for route in held:
        route.continue_()
    expect(page).to_have_url(re.compile(r"/true\?of=\d+$"))
    expect(page.get_by_role("tab", name="Fold test")).to_be_visible()
    # and the other way round: the other cloth, then another page of it
    page.evaluate(
        """() => {
          document.querySelector('.cloths a:not([aria-current])').click();
          document.querySelector('.rail-stage[href*="/shrink"]').click();
        }"""
    )
    expect(page).to_have_url(re.compile(r"/shrink$"))


def test_three_cloths_from_an_empty_home(page: Page, own: str) -> None:
    maker = Maker(page)
    begin(page, own, "Lined jacket")
    page.get_by_text("in / yd").click()
    maker.piece(
        "Front",
        [("0", "11", "0"), ("14", "12", "0"), ("24", "9", "2"), ("29", "4", "3")],
        "half of the copies mirrored",
    )
    maker.piece("Back", [("0", "10 1/2"), ("15", "10"), ("27", "3")], "cut on the fold")
    heading = page.get_by_role("heading", level=1)
    expect(heading).to_have_text("2 pieces, 3 to cut")

    # what is cut from what: by mouse and by keys
    page.get_by_role("tab", name="What is cut from what").click()
    expect(heading).to_have_text("Everything is cut from one cloth")
    for role, name in (("lining", "Lining"), ("interfacing", "Canvas")):
        maker.beside(role, name)
        expect(page.locator(".which-cloths")).to_contain_text(name)
    page.get_by_role("button", name="Cut Front from Lining").click()
    maker.enter("Front from Lining, shorter at its low end by", "3/4")
    expect(page.get_by_role("row", name=re.compile("^Front from Lining: 1 pair"))).to_be_visible()
    page.get_by_role("button", name="Cut Back from Lining").press("Enter")
    maker.enter("Back from Lining, shorter at its low end by", "3/4")
    page.get_by_role("button", name="Cut Front from Canvas").press("Enter")
    page.get_by_label("Front from Canvas, without any allowance").click()
    saved(page)
    expect(heading).to_have_text("3 cloths, 8 to cut")

    # each cloth measured; the switch keeps its place over the stages
    maker.stage("Cloth")
    widths(maker, "58")
    pick(page, "Fibre", "cotton")
    maker.enter("Price", "22")
    maker.cloth("Lining")
    expect(page.get_by_label("Width, reading 1")).to_have_value("")
    widths(maker, "54")
    pick(page, "Fibre", "polyester")
    maker.enter("Price", "9")
    maker.cloth("Canvas")
    widths(maker, "36")
    pick(page, "Fibre", "polyester")
    pick(page, "Weave or kind", "non-woven")
    maker.enter("Price", "5")

    # a swatch of the check, typed without waiting
    maker.cloth("main cloth")
    maker.stage("Shrink")
    page.get_by_role("button", name="Marked 10 in").click()
    expect(page.get_by_label("weft reading 3, before")).to_have_value("10 in")
    for way, after in (("warp", "9 5/8"), ("weft", "9 3/4")):
        for place in (1, 2, 3):
            field = page.get_by_label(f"{way} reading {place}, after")
            field.fill(after)
            field.press("Enter")
            maker.typed += 1
    expect(page.get_by_text("from the washed swatch")).to_have_count(2)
    expect(page.get_by_label("warp reading 2, after")).to_have_value("9 ⅝ in")
    expect(page.locator(".answer-number").first).to_have_text("3.8")
    expect(page.get_by_label("weft reading 3, after")).to_have_value("9 ¾ in")
    expect(page.locator(".answer-number").last).to_have_text("2.5")
    saved(page)

    # laid one after another, and after a reload the page shows the same cloth
    maker.stage("Lay")
    for name, pieces in (("main cloth", 3), ("Lining", 3), ("Canvas", 2)):
        maker.cloth(name)
        page.get_by_role("button", name="Lay the pieces").click()
        expect(page.locator(".laid").first).to_be_visible(timeout=30_000)
        expect(page.get_by_role("button", name="Lay again")).to_be_visible(timeout=30_000)
        expect(page.get_by_text(f"{pieces} pieces cut")).to_be_visible()
    page.reload()
    expect(page.locator('.cloths [aria-current="true"]')).to_contain_text("Canvas")
    expect(page.get_by_text("2 pieces cut")).to_be_visible()

    # bought: each by itself, the list and the cost for all
    maker.stage("Buy")
    expect(heading).to_contain_text("of Canvas")
    costs: list[str] = []
    for name in ("Canvas", "Lining", "main cloth"):
        maker.cloth(name)
        expect(page.locator('.cloths [aria-current="true"]')).to_contain_text(name)
        cost = page.locator('[data-key="cost"] b')
        # each cloth costs something else: this is no longer that of the one before
        expect(cost).not_to_have_text(costs[-1] if costs else "")
        costs.append(cost.inner_text())
        assert float(page.locator('[data-key="all_cloths"] b').inner_text()) > 0
    assert float(page.locator('[data-key="all_cloths"] b').inner_text()) == pytest.approx(
        sum(map(float, costs)), abs=0.011
    )
    page.get_by_role("tab", name="The list").click()
    for name in ("Lining", "Canvas", "sewing thread"):
        expect(page.locator(".items")).to_contain_text(name)

    # a second window shows a change of the first, and renaming a piece leaves the lay as it is
    maker.stage("Plan")
    page.get_by_role("button", name=re.compile("^Front, ")).click()
    page.get_by_role("button", name="Change", exact=True).click()
    page.get_by_label("Name", exact=True).fill("Front with lapel")
    page.get_by_role("button", name="Keep the change").click()
    maker.typed += 1
    maker.stage("Lay")
    expect(page.locator('.laid[aria-label^="Front with lapel, 1"]')).to_be_visible()
    expect(page.locator("main").get_by_text("Out of date")).to_have_count(0)

    # a wash written down asks for length and width, and is the cloth's new state
    maker.stage("Cloth")
    maker.enter("Length in hand, if any", "3 yd")
    maker.stage("Shrink")
    page.get_by_role("tab", name="How to wash it").click()
    page.get_by_role("group", name="A wash of the length, written down").get_by_label("How").fill("cold, line")
    page.get_by_role("button", name="Write it down").click()
    saved(page)
    maker.stage("Cloth")
    expect(page.get_by_text(re.compile("will be about"))).to_be_visible()
    expect(page.get_by_label("Width, reading 1")).to_have_value("")
    maker.into(page.get_by_label("Width, reading 1"), "56 1/4")
    expect(page.get_by_text(re.compile("From selvage to selvage it is"))).to_be_visible()
    page.get_by_role("button", name="as bought").click()
    expect(page.get_by_label("Width, reading 1")).to_have_value("58 in")
    print(f"{maker.typed} values typed")
    assert maker.typed <= MOST_TYPED


def test_the_hand_goes_on_in_a_line_that_was_begun_unless_it_went_on_by_itself(page: Page, own: str) -> None:
    begin(page, own, "Apron")
    maker = Maker(page)
    for name in ("Bib", "Skirt"):
        maker.piece(name, [("0", "20", "0"), ("40", "15", "0")], "half of the copies mirrored")
    page.get_by_role("tab", name="What is cut from what").click()
    page.get_by_label("Put beside it").select_option("lining")
    page.get_by_label("Its name").fill("Lining")
    page.get_by_label("Its name").press("Enter")
    page.get_by_role("button", name="Cut Bib from Lining").press("Enter")
    line = page.get_by_role("row", name=re.compile("^Bib from Lining"))
    expect(line.get_by_role("textbox").first).to_be_focused()

    # the answer comes when the hand is in another field, where nothing is typed yet
    held: list[Route] = []
    page.route("**/api/pieces/*/cuts/**", lambda route: held.append(route), times=1)
    with page.expect_request("**/api/pieces/*/cuts/**"):
        page.get_by_role("button", name="Cut Skirt from Lining").press("Enter")
    other = page.get_by_label("Bib from Lining, shorter at its low end by")
    other.focus()
    held[0].continue_()
    expect(page.get_by_role("row", name=re.compile("^Skirt from Lining"))).to_be_visible()
    # longer than any wait of the page's own
    page.evaluate("new Promise((done) => setTimeout(done, 200))")
    expect(other).to_be_focused()
    other.fill("1")
    other.press("Enter")
    saved(page)
    expect(other).to_have_value("1.0 cm")


def test_what_is_half_typed_stays_with_its_cloth(page: Page, own: str) -> None:
    begin(page, own, "Two cloths")
    page.get_by_role("tab", name="What is cut from what").click()
    page.get_by_label("Its name").fill("Lining")
    page.get_by_label("Its name").press("Enter")
    expect(page.locator(".which-cloths")).to_contain_text("Lining")
    page.get_by_role("link", name="Buy", exact=True).click()
    spare = page.get_by_label("Spare, after washing")
    spare.fill("a handful")
    lining = page.get_by_role("navigation", name="Cloths of this garment").get_by_role("link", name="Lining")
    # the refusal comes in, above the cloths, while the button is down: it must not push them away from under it
    lining.hover()
    with page.expect_response("**/purchase*"):
        page.mouse.down()
    page.evaluate("new Promise((done) => setTimeout(done, 100))")
    page.mouse.up()
    expect(spare).to_have_value("0.0 cm")
    page.get_by_role("navigation", name="Cloths of this garment").get_by_role("link", name="main cloth").click()
    expect(spare).to_have_value("a handful")


def test_a_trim_is_bought_by_its_edges(page: Page, own: str) -> None:
    begin(page, own, "Cape")
    page.get_by_role("tab", name="What is cut from what").click()
    Maker(page).beside("trim", "Braid")
    page.get_by_role("link", name="Cloth", exact=True).click()
    page.get_by_role("navigation", name="Cloths of this garment").get_by_role("link", name="Braid").click()
    pick(page, "Fibre", "polyester")
    saved(page)
    page.get_by_role("link", name="Buy", exact=True).click()
    page.get_by_role("button", name="Another edge").click()
    for label, text in (("Edge", "hem"), ("its length", "2,4 m"), ("times", "2")):
        field = page.get_by_label(label, exact=True)
        field.fill(text)
        field.press("Enter")
    # (240 + 3) × 2 = 486 cm, and a hundredth that polyester may shrink: 491, so 5 m where 10 cm are cut
    expect(page.get_by_role("heading", level=1)).to_contain_text("Ask for 5.00 m of Braid")


def test_changes_are_sent_one_after_another(page: Page, own: str) -> None:
    """Two lists typed at once: the answer to the first may be late, and must not take the second back."""
    begin(page, own, "Cape")
    page.get_by_role("link", name="Shrink", exact=True).click()
    page.get_by_role("button", name="Marked 25 cm").click()
    expect(page.get_by_label("weft reading 3, before")).to_have_value("25.0 cm")
    held: list[Route] = []
    page.route("**/swatch*", lambda route: held.append(route) if not held else route.continue_())
    sent: list[str] = []
    page.on("request", lambda request: sent.append(request.method) if "/swatch" in request.url else None)
    for label, text in (("warp reading 1, after", "24"), ("weft reading 1, after", "24,5")):
        page.get_by_label(label).fill(text)
        page.get_by_label(label).press("Enter")
    # another question is asked and answered meanwhile
    assert page.evaluate("fetch('/api/health').then((answer) => answer.ok)")
    assert sent == ["PUT"], "the second waits for the first to be answered"
    held[0].continue_()
    expect(page.get_by_text("from the washed swatch")).to_have_count(2)
    for label, text in (("warp reading 1, after", "24.0 cm"), ("weft reading 1, after", "24.5 cm")):
        expect(page.get_by_label(label)).to_have_value(text)
    expect(page.locator(".answer-number").last).to_have_text("2.0")
    assert set(sent) == {"PUT"} and len(sent) >= 2
