"""What stopped or annoyed a practised maker: refusals, windows, undo, keys, double clicks."""

from __future__ import annotations

import re

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, Route, expect
from tools.own_page import asking

from .by_hand import pick
from .test_cloth_shrink import enter, heading, linen
from .test_screens import begin
from .test_whole_way import saved

pytestmark = pytest.mark.browser


def undo(page: Page) -> None:
    page.get_by_role("button", name="Undo", exact=True).click()


def test_a_refusal_is_seen_whatever_follows_at_once(page: Page, own: str) -> None:
    linen(page, own)
    length = page.get_by_label("Length in hand, if any")
    # the answer comes when the hand has gone on by two fields
    held: list[Route] = []
    page.route("**/api/projects/*/cloth**", lambda route: held.append(route), times=1)
    length.fill("two metres")
    with page.expect_request("**/api/projects/*/cloth**"):
        length.press("Tab")
    page.keyboard.press("Tab")
    expect(length).not_to_be_focused()
    held[0].continue_()
    strip = page.get_by_role("list", name="Not saved")
    expect(strip).to_contain_text("Length in hand, if any")
    expect(length).to_be_focused()
    expect(page.locator(".saved")).to_have_text("not saved")
    # another field is kept meanwhile, and the first one still says that it is not
    enter_other = page.get_by_label("Near selvage not used")
    enter_other.fill("1 cm")
    enter_other.press("Enter")
    expect(enter_other).to_have_value("1.0 cm")
    expect(strip).to_contain_text("Length in hand, if any")
    expect(page.locator(".saved")).to_have_text("not saved")
    strip.get_by_role("button", name="Go there").click()
    expect(length).to_be_focused()
    page.keyboard.type("2 m")
    page.keyboard.press("Enter")
    saved(page)
    expect(strip).to_have_count(0)


def test_leaving_what_was_refused_sends_it_no_second_time(page: Page, own: str) -> None:
    linen(page, own)
    sent: list[str] = []
    page.on("request", lambda request: sent.append(request.post_data or "") if "/read" not in request.url else None)
    length = page.get_by_label("Length in hand, if any")
    length.fill("two metres")
    length.press("Tab")
    expect(page.get_by_role("list", name="Not saved")).to_contain_text("Length in hand, if any")
    expect(length).to_be_focused()
    other = page.get_by_label("Near selvage not used")
    other.fill("1 cm")
    other.press("Enter")
    expect(other).to_have_value("1.0 cm")
    refused = [text for text in sent if "two metres" in text]
    assert len(refused) == 1
    # Enter says it once more
    with page.expect_request(lambda request: "two metres" in (request.post_data or "") and "/read" not in request.url):
        length.press("Enter")
    expect(length).to_have_attribute("aria-invalid", "true")
    # and what was typed anew is said anew, though it is the same again
    with page.expect_request(lambda request: "two metres" in (request.post_data or "") and "/read" not in request.url):
        length.fill("two")
        length.fill("two metres")
        length.press("Tab")
    expect(length).to_have_attribute("aria-invalid", "true")


def test_a_kept_reading_asks_once(page: Page, own: str) -> None:
    tape: list[str] = []
    page.on("request", lambda request: tape.append(request.url) if "/tape/readings" in request.url else None)
    linen(page, own)
    assert tape == [], "what the tape sent last is told with the news"
    near = page.get_by_label("Near selvage not used")
    expect(page.get_by_role("button", name="Undo", exact=True)).to_be_enabled()
    asked: list[str] = []
    page.on("request", lambda request: asked.append(f"{request.method} {request.url.partition('/api')[2]}"))
    enter(page, "Near selvage not used", "1 cm")
    expect(near).to_have_value("1.0 cm")
    enter(page, "Near selvage not used", "1.2 cm")
    expect(near).to_have_value("1.2 cm")
    # how a half typed length is read is asked while it is typed
    assert [one for one in asked if one != "POST /lengths/read"] == ["PATCH /projects/1/cloth"] * 2, asked
    undo(page)
    expect(near).to_have_value("1.0 cm")


def test_typing_on_is_not_interrupted_by_a_refusal(page: Page, own: str) -> None:
    linen(page, own)
    held: list[Route] = []
    page.route("**/api/projects/*/cloth**", lambda route: held.append(route))
    page.get_by_label("Length in hand, if any").fill("two metres")
    page.get_by_label("Near selvage not used").focus()
    page.keyboard.press("Control+a")
    page.keyboard.type("1,5 cm")
    # the refusal comes in while the next field is being typed
    held[0].continue_()
    expect(page.get_by_label("Near selvage not used")).to_have_value("1,5 cm")
    expect(page.get_by_role("list", name="Not saved")).to_contain_text("Length in hand, if any")
    expect(page.get_by_label("Near selvage not used")).to_be_focused()


def test_two_windows_follow_each_other_and_overwrite_nothing(page: Page, own: str) -> None:
    linen(page, own)
    other = page.context.new_page()
    other.goto(page.url)
    mine, theirs = (one.get_by_label("Near selvage not used") for one in (page, other))
    expect(theirs).to_have_value("0.0 cm")
    mine.fill("3 cm")
    theirs.fill("2 cm")
    theirs.press("Enter")
    saved(other)
    mine.press("Enter")
    expect(page.get_by_text("In another window this became 2.0 cm. Here you typed 3 cm.")).to_be_visible()
    expect(mine).to_have_value("3 cm")
    page.get_by_role("button", name="Keep mine").click()
    saved(page)
    # the other window shows it within seconds, by itself
    expect(theirs).to_have_value("3.0 cm", timeout=15_000)
    mine.fill("4 cm")
    theirs.fill("5 cm")
    theirs.press("Enter")
    saved(other)
    mine.press("Enter")
    page.get_by_role("button", name="Take the other").click()
    expect(mine).to_have_value("5.0 cm")
    expect(page.get_by_role("list", name="Not saved")).to_have_count(0)


def test_undo_is_for_good_by_key_by_hand_and_from_the_log(page: Page, own: str) -> None:
    linen(page, own)
    facts = page.get_by_role("group", name="Facts of the cloth")
    facts.get_by_role("button", name="Flaws").click()
    page.get_by_role("button", name="Add a flaw").click()
    enter(page, "What it is", "slub")
    page.get_by_role("button", name="Remove this flaw").click()
    expect(page.get_by_label("What it is")).to_have_count(0)
    # the hand is not lost with what was taken away
    assert page.evaluate("document.activeElement !== document.body")
    page.reload()
    facts.get_by_role("button", name="Flaws").click()
    page.locator("main").focus()
    page.keyboard.press("Control+z")
    expect(page.get_by_label("What it is")).to_have_value("slub")
    expect(page.get_by_role("group", name="Undo")).to_contain_text("Taken back: ")
    undo(page)
    expect(page.get_by_label("What it is")).to_have_value("flaw")
    page.get_by_role("button", name="Redo").click()
    expect(page.get_by_label("What it is")).to_have_value("slub")
    page.get_by_role("link", name="Log", exact=True).click()
    line = page.locator(".log-lines li", has_text="Noted length in hand").last
    line.get_by_role("button", name=re.compile("^Undo")).click()
    expect(line).to_contain_text("taken back")
    page.get_by_role("link", name="Cloth", exact=True).click()
    expect(page.get_by_label("Length in hand, if any")).to_have_value("")


def test_what_is_begun_before_the_bench_is_told_stands_on_it(page: Page, own: str) -> None:
    held: list[Route] = []
    page.route("**/api/projects", lambda route: held.append(route) if not held else route.fallback())
    page.goto(own)
    page.get_by_label("A new project").fill("Apron")
    # the list of before is answered only when there is a garment
    old = page.request.get(f"{own}api/projects").text()
    with page.expect_response(lambda answer: answer.request.method == "POST"):
        page.get_by_role("button", name="Begin").click()
    held[0].fulfill(body=old, content_type="application/json")
    expect(page.get_by_role("heading", level=1)).to_have_text("Which pieces will be cut?")
    page.get_by_role("link", name="Idle Selvage").click()
    expect(page.get_by_role("link", name="Open Apron")).to_be_visible()


def test_what_was_put_away_comes_back_on_the_bench(page: Page, own: str) -> None:
    begin(page, own, "Apron")
    page.get_by_role("link", name="Idle Selvage").click()
    page.get_by_role("button", name="Put Apron away").click()
    expect(page.get_by_role("link", name="Open Apron")).to_have_count(0)
    page.reload()
    undo(page)
    expect(page.get_by_role("link", name="Open Apron")).to_be_visible()


def test_a_piece_that_was_begun_is_not_left_without_a_word(page: Page, own: str) -> None:
    begin(page, own)
    page.get_by_role("button", name="Read off with a tape").click()
    page.get_by_label("Name", exact=True).fill("Sleeve")
    page.get_by_role("button", name="Close", exact=True).click()
    asks = page.get_by_role("dialog", name="Something here is not kept yet")
    asks.get_by_role("button", name="Go on with it").click()
    expect(page.get_by_label("Name", exact=True)).to_have_value("Sleeve")
    page.reload()
    page.get_by_role("button", name="Read off with a tape").click()
    expect(page.get_by_text("This is a draft of before")).to_be_visible()
    page.get_by_role("button", name="Close", exact=True).click()
    asks.get_by_role("button", name="Throw it away").click()
    expect(page.get_by_role("dialog")).to_have_count(0)
    expect(page.get_by_role("button", name="Read off with a tape")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_label("Name", exact=True)).to_have_value("")
    expect(page.get_by_text("This is a draft of before")).to_have_count(0)


def test_a_double_click_begins_one_garment(page: Page, own: str) -> None:
    page.goto(own)
    page.get_by_label("A new project").fill("Apron")
    page.get_by_role("button", name="Begin").dblclick()
    expect(page.get_by_role("heading", level=1)).to_have_text("Which pieces will be cut?")
    page.get_by_role("link", name="Idle Selvage").click()
    expect(page.get_by_role("link", name="Open Apron")).to_have_count(1)


def test_laying_again_is_not_stopped_by_a_second_click(page: Page, demo: str) -> None:
    page.goto(demo)
    page.get_by_role("link", name="Open Boxy overshirt").click()
    page.get_by_role("link", name="Lay", exact=True).click()
    again = page.get_by_role("button", name="Lay again")
    box = again.bounding_box()
    assert box is not None
    again.dblclick()
    stop = page.get_by_role("button", name="Good enough")
    expect(stop).to_be_visible()
    there = stop.bounding_box()
    assert there is not None and (there["x"] > box["x"] + box["width"] or there["y"] > box["y"] + box["height"])
    stop.click()
    expect(again).to_be_enabled(timeout=30_000)


def test_skip_links_keys_and_the_way_to_the_main_command(page: Page, own: str) -> None:
    begin(page, own)
    page.reload()
    expect(page.get_by_role("heading", level=1)).to_have_text("Which pieces will be cut?")
    page.keyboard.press("Tab")
    expect(page.get_by_role("button", name="To the stage")).to_be_focused()
    page.keyboard.press("Tab")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Read off with a tape")).to_be_focused()
    page.get_by_role("link", name="Cloth", exact=True).click()
    heading(page, "cloth")
    expect(page.locator("main")).to_be_focused()
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Keys")).to_contain_text("take back the last thing done")
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog", name="Keys")).to_be_hidden()


def test_every_warning_is_read_mended_and_set_aside(page: Page, own: str) -> None:
    linen(page, own)
    pick(page, "Weave or kind", "corduroy")
    saved(page)
    page.get_by_role("button", name="look again").click()
    listed = page.get_by_role("dialog")
    pile = listed.get_by_role("listitem").filter(has_text="no direction is given")
    expect(pile.get_by_role("link", name="Mend it: Cloth")).to_be_visible()
    pile.get_by_role("button", name="Set aside").click()
    pile.get_by_label("Why it may be left").fill("it is needlecord for a lining")
    page.keyboard.press("Enter")
    expect(listed.get_by_text("Set aside: it is needlecord for a lining")).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.locator(".tally-warnings")).to_contain_text("1 set aside")


def test_the_first_day_says_what_it_does_and_asks_once(page: Page, own: str) -> None:
    page.goto(own)
    day = page.get_by_role("region", name="First day")
    expect(day.get_by_role("listitem")).to_have_count(3)
    day.get_by_text("in / yd").click()
    expect(day.get_by_label("Your tape is read to")).to_have_value("1⁄16 in")
    day.get_by_label("Your shop cuts in steps of").select_option(label="¼ yd")
    saved(page)
    day.get_by_role("button", name="That is right").click()
    expect(day.get_by_role("button", name="That is right")).to_have_count(0)
    begin(page, own)
    page.get_by_role("link", name="Buy", exact=True).click()
    expect(page.get_by_label("The shop cuts in steps of")).to_contain_text("¼ yd")
    page.get_by_role("link", name="Cloth", exact=True).click()
    enter(page, "Length in hand, if any", "2 3/4")
    expect(page.get_by_label("Length in hand, if any")).to_have_value("99 in")
    enter(page, "Weight", "6")
    expect(page.locator(".entry", has=page.get_by_label("Weight"))).to_contain_text("oz/yd²")
    expect(page.get_by_label("Weight")).to_have_value("6")
    expect(page.get_by_label("Price is for one")).to_have_value("yd")


def test_an_example_garment_to_look_at(page: Page, own: str) -> None:
    page.goto(own)
    page.get_by_role("button", name="Look at an example garment").dblclick()
    expect(page.get_by_role("heading", level=1)).to_have_text("7 pieces, 15 to cut")
    page.get_by_role("link", name="Idle Selvage").click()
    expect(page.get_by_role("button", name=re.compile("^Put .* away$"))).to_have_count(1)


def test_words_of_the_trade_explain_themselves(page: Page, own: str) -> None:
    linen(page, own)
    pick(page, "Weave or kind", "corduroy")
    saved(page)
    page.get_by_role("link", name="Shrink", exact=True).click()
    page.get_by_role("tab", name="How to wash it").click()
    page.get_by_role("main").get_by_role("button", name="selvages", exact=True).first.click()
    expect(page.get_by_role("tooltip")).to_contain_text("firm finished edge")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Words", exact=True).click()
    words = page.get_by_role("dialog", name="Words of the trade")
    words.get_by_label("Find a word").fill("rayon")
    expect(words.locator("dt")).to_have_text("viscose")


DIALOGS = ("Keys", "Words", "Yours")


@pytest.mark.parametrize("name", DIALOGS)
def test_what_opens_from_the_head_of_a_page_is_accessible(page: Page, demo: str, name: str) -> None:
    page.goto(demo)
    page.get_by_role("button", name=name, exact=True).click()
    expect(page.get_by_role("dialog")).to_be_visible()
    found = Axe().run(page)
    assert found.violations_count == 0, found.generate_report()


def test_a_command_that_was_refused_is_told_until_something_else_was_done(page: Page, own: str) -> None:
    linen(page, own)
    page.goto(own)
    said = {"code": "in_use", "message": "Not now.", "fields": [], "both": []}
    page.route("**/api/projects/1", lambda route: route.fulfill(status=422, json=said))
    page.get_by_role("button", name=re.compile("^Put .* away$")).click()
    strip = page.get_by_role("list", name="Not saved")
    expect(strip).to_contain_text("Not now.")
    page.unroute("**/api/projects/1")
    page.get_by_role("button", name=re.compile("^Put .* away$")).click()
    expect(strip).to_have_count(0)


def test_a_stage_that_waits_says_for_which_and_goes_there(page: Page, own: str) -> None:
    begin(page, own)
    # the rail's order is the order of work
    names = page.get_by_role("navigation", name="Stages").locator("a.rail-stage").all_inner_texts()
    assert [name.strip() for name in names] == ["Plan", "Cloth", "Shrink", "Lay", "Buy", "True", "Cut", "Log"]
    for stage in ("lay", "buy", "cut"):
        page.goto(f"{own}projects/1/{stage}")
        expect(page.get_by_text(f"{stage.capitalize()} waits for Plan: Add the pattern pieces first.")).to_be_visible()
    page.get_by_role("button", name="Go to Plan").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Which pieces will be cut?")
    page.goto(f"{own}projects/1/true")
    page.get_by_role("button", name="Go to Cloth").press("Enter")
    expect(page.get_by_role("heading", level=1)).to_have_text("How wide is the cloth?")
    # what a figure of the tally lacks is one touch away, and is told without hovering
    page.locator('[data-key="shrinkage_warp"] a').click()
    expect(page).to_have_url(re.compile("/shrink"))


def test_stages_and_cloths_by_keys(page: Page, demo: str) -> None:
    page.goto(demo)
    page.get_by_role("link", name="Open Notched waistcoat", exact=True).click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("to cut")
    page.keyboard.press("Alt+PageDown")
    expect(page).to_have_url(re.compile("/cloth"))
    expect(page.get_by_label("Name", exact=True)).to_have_value("Velveteen, bottle green")
    page.keyboard.press("Alt+c")
    expect(page.get_by_label("Name", exact=True)).to_have_value("Lining twill, slate")
    page.keyboard.press("Alt+PageUp")
    expect(page).to_have_url(re.compile("/plan"))


def test_a_wash_is_not_written_down_twice(page: Page, own: str) -> None:
    linen(page, own)
    page.goto(f"{own}projects/1/shrink?part=treat")
    page.get_by_label("How", exact=True).fill("by hand, cool")
    page.get_by_label("How", exact=True).press("Enter")
    page.get_by_role("button", name="Write it down").dblclick()
    lines = page.locator(".washes li")
    expect(lines).to_have_count(1)
    page.reload()
    expect(lines).to_have_count(1)
    expect(lines).to_contain_text("by hand, cool")


def test_a_word_in_a_label_is_explained_on_touch(page: Page, own: str) -> None:
    linen(page, own)
    page.locator(".entry", has_text="Near selvage not used").locator(".ask-word").click()
    expect(page.get_by_role("tooltip")).to_contain_text("Also called: selvedge, self-edge.")


def test_a_long_list_is_found_by_typing(page: Page, own: str) -> None:
    linen(page, own)
    pick(page, "Weave or kind", "gauze")
    saved(page)
    page.reload()
    expect(page.locator(".entry", has_text="Weave or kind")).to_contain_text("double or triple gauze")


def test_what_was_typed_of_an_offer_is_laid_at_once(page: Page, demo: str) -> None:
    page.goto(demo)
    href = page.get_by_role("link", name="Open Bias slip", exact=True).get_attribute("href") or ""
    page.goto(f"{demo}projects/{href.split('/')[2]}/buy?part=offers")
    page.get_by_role("button", name="Put an offer beside these").click()
    drawer = page.get_by_role("dialog", name="An offer")
    row = page.get_by_role("row", name=re.compile("^Another width"))
    seen = set()
    for width in ("160 cm", "135 cm", "150 cm"):
        drawer.get_by_label("Width, selvage to selvage").fill(width)
        drawer.get_by_label("Width, selvage to selvage").press("Enter")
        # typed while the one before is still being laid, too
        expect(row.locator("td").first).to_have_text(width.replace(" cm", ".0 cm"))
        expect(row.locator(".small-lay")).to_be_visible(timeout=60_000)
        seen.add(row.locator("td").nth(2).inner_text())
    assert len(seen) > 1, "another width is another lay"
    drawer.get_by_role("button", name="Take it out").click()


def test_what_is_in_hand_is_told_on_the_bench_in_buy_and_on_the_list(page: Page, demo: str) -> None:
    page.goto(demo)
    strip = page.locator(".strip", has_text="Bias slip")
    expect(strip).to_contain_text("to buy")
    href = page.get_by_role("link", name="Open Bias slip", exact=True).get_attribute("href") or ""
    at = f"{demo}projects/{href.split('/')[2]}"
    page.goto(f"{at}/cloth")
    enter(page, "Length in hand, if any", "9 m")
    page.goto(f"{at}/buy")
    expect(page.get_by_role("heading", level=1)).to_contain_text("Nothing to buy")
    expect(page.locator('[data-key="to_buy"] b')).to_have_text("0.00")
    page.get_by_role("tab", name="The list").click()
    tick = page.get_by_label("Crepe, harbour blue is in the house")
    expect(tick).to_be_checked()
    expect(tick).to_be_disabled()
    page.goto(demo)
    expect(page.locator("li", has_text="Bias slip").first).to_contain_text("nothing to buy: 900.0 cm in hand will do")
    page.goto(f"{at}/cloth")
    enter(page, "Length in hand, if any", "")


def test_while_something_is_fetched_it_says_so(page: Page, demo: str) -> None:
    page.goto(demo)
    href = page.get_by_role("link", name="Open Boxy overshirt", exact=True).get_attribute("href") or ""
    at = f"{demo}projects/{href.split('/')[2]}"
    held: list[Route] = []
    page.route(re.compile(r"/api/(cloths|washday|projects/\d+/(lay|sheet|offers|list|envelope|will-it-do|true|shrink|log))\b"),
               lambda route: held.append(route))  # fmt: skip
    for place in ("cupboard", "washday"):
        page.goto(demo + place)
        expect(page.locator("main")).to_contain_text("Fetching …")
        expect(page.locator("main")).not_to_contain_text(re.compile("empty|[Nn]othing|waits"))
    for place in (
        "plan?part=sheet",
        "shrink",
        "lay",
        "buy?part=offers",
        "buy?part=list",
        "buy?part=envelope",
        "true",
        "log",
    ):
        page.goto(f"{at}/{place}")
        expect(page.locator("main")).to_contain_text("Fetching …")
        expect(page.locator("main")).not_to_contain_text(re.compile("Nothing|No pieces|Is it on grain"))
    page.goto(f"{at}/buy?part=cupboard")
    expect(page.locator("main .facts")).to_contain_text("Fetching …")
    assert held
    for route in held[-3:]:
        route.continue_()


def test_a_long_log_is_shown_so_many_lines_at_a_time(page: Page, own: str) -> None:
    begin(page, own)
    for name in ("Apron", "Long apron", "Long blue apron", "Apron again"):
        enter(page, "Project name", name)
    page.route("**/api/log/lines**", lambda route: route.continue_(url=f"{with_lines(route.request.url)}lines=2"))
    page.get_by_role("link", name="Log", exact=True).click()
    heading = page.get_by_role("heading", level=1)
    expect(heading).to_have_text("2 and more steps so far")
    lines = page.locator(".log-lines li")
    expect(lines).to_have_count(2)
    for count in (4, 5):
        page.get_by_role("button", name="Earlier steps").click()
        expect(lines).to_have_count(count)
    expect(page.get_by_role("button", name="Earlier steps")).to_have_count(0)
    expect(heading).to_have_text("5 steps so far")
    # what was fetched before is asked for again when something is taken back
    lines.first.get_by_role("button", name=re.compile("^Undo")).click()
    expect(page.get_by_role("heading", level=1)).to_have_text("6 steps so far")
    expect(lines.nth(1)).to_contain_text("taken back")


def test_the_log_is_searched_noted_in_and_grouped(page: Page, own: str) -> None:
    begin(page, own)
    for name in ("Apron", "Long apron", "Long blue apron", "Apron again"):
        enter(page, "Project name", name)
    page.get_by_role("link", name="Log", exact=True).click()
    group = page.locator(".log-group")
    expect(group).to_contain_text("3 more of that kind")
    group.locator("summary").click()
    expect(group.get_by_role("button", name=re.compile("^Undo"))).to_have_count(4)
    note = page.get_by_label("A note of your own")
    note.fill("Press the hem over a ham")
    page.get_by_role("button", name="Write it down").dblclick()
    noted = page.locator(".own-note")
    expect(noted).to_have_count(1)
    expect(note).to_have_value("")
    page.get_by_label("With the words").fill("ham press")
    expect(page.get_by_role("heading", level=1)).to_have_text("1 step like that")
    expect(page.get_by_role("link", name="These lines as a table")).to_have_attribute("href", re.compile("text=ham"))
    page.get_by_label("With the words").fill("zebra")
    expect(page.get_by_role("heading", level=1)).to_have_text("No line is like that")
    page.get_by_role("button", name="All of it again").click()
    expect(group).to_have_count(1)
    page.get_by_role("combobox", name="in", exact=True).select_option("Cloth")
    expect(page.get_by_role("heading", level=1)).to_have_text("No line is like that")
    page.get_by_role("combobox", name="of", exact=True).select_option("everything")
    page.get_by_role("combobox", name="in", exact=True).select_option("every stage")
    expect(noted).to_have_count(1)


def test_how_it_came_out_stands_beside_what_was_predicted(page: Page, own: str) -> None:
    begin(page, own)
    page.get_by_role("link", name="Log", exact=True).click()
    page.get_by_role("tab", name="How it came out").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("How did it come out?")
    page.get_by_role("combobox", name="Grade").select_option("4")
    page.get_by_label("in your own words").fill("a little wide")
    page.get_by_role("button", name="Write it down").dblclick()
    rows = page.get_by_role("row")
    expect(rows).to_have_count(2)
    expect(rows.nth(1)).to_contain_text("a little wide")
    # what cannot be is refused where it is typed, and stays there
    page.get_by_role("combobox", name="What", exact=True).select_option("Shrinkage along, again")
    page.get_by_label("Before its washes").fill("25 cm")
    page.get_by_label("and now").fill("soft")
    page.get_by_role("button", name="Write it down").click()
    expect(page.get_by_role("alert")).to_be_visible()
    expect(page.get_by_label("Before its washes")).to_have_value("25 cm")
    page.get_by_label("and now").fill("24.5 cm")
    page.get_by_label("and now").press("Enter")
    expect(rows.nth(1)).to_contain_text("2.0 %")
    page.get_by_role("combobox", name="Complaint").select_option("It came out too short")
    expect(page.get_by_role("region", name="Why did it come out so?")).to_contain_text("Next time:")
    page.get_by_role("button", name="Strike out How it fits").click()
    expect(rows).to_have_count(2)
    undo(page)
    page.reload()
    expect(rows).to_have_count(3)
    page.get_by_role("tab", name="What it teaches").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("2 measured on finished garments")


def test_a_cloth_nobody_uses_has_its_log_in_the_cupboard(page: Page, own: str) -> None:
    page.goto(f"{own}cupboard")
    number = page.request.post(f"{own}api/cloths", data={"name": "Remnant of linen"}, headers=asking(own)).json()["id"]
    page.goto(f"{own}cupboard/{number}")
    page.get_by_role("button", name="Its log").click()
    lines = page.get_by_role("dialog").locator(".log-lines li")
    expect(lines).to_have_count(1)
    expect(lines).to_contain_text("Put Remnant of linen into the cupboard.")
    page.get_by_label("A note of your own").fill("from the market")
    page.get_by_role("button", name="Write it down").click()
    expect(lines.first).to_contain_text("from the market")


def with_lines(url: str) -> str:
    return f"{url}&" if "?" in url else f"{url}?"
