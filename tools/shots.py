"""Pictures of every main view from the demo data: ``make shots`` refreshes docs/screenshots.

With arguments, only the named views, and ``--out`` puts them elsewhere: for looking at while working.
"""

from __future__ import annotations

import argparse
import json
import re
import socket
import subprocess
import sys
import tempfile
import time
import urllib.request
from pathlib import Path

import pypdfium2
from PIL import Image
from playwright.sync_api import Page, expect, sync_playwright

from tools.chromium import ARGS, CHROMIUM
from tools.own_page import asking

ROOT = Path(__file__).parent.parent


def choose_piece(page: Page, name: str) -> None:
    page.locator(f'[aria-label^="{name}"]').first.click()


def opened_working(page: Page) -> None:
    page.locator('[data-key="to_buy"] button').click()
    page.wait_for_selector(".working")


def stations(page: Page) -> None:
    page.get_by_role("button", name="Gore").click()
    page.get_by_role("button", name="Change", exact=True).click()
    page.wait_for_selector(".piece-picture polygon")


def piece_form(page: Page) -> None:
    page.get_by_role("button", name=re.compile("^Front, ")).click()
    page.get_by_role("button", name="Change", exact=True).click()
    page.wait_for_selector(".piece-picture polygon")
    page.get_by_text(re.compile("^Edges and their allowances")).click()


def planned(page: Page) -> None:
    page.get_by_role("button", name="Plan").first.click()
    page.wait_for_selector(".slot")


def folded(page: Page) -> None:
    page.get_by_role("button", name="folded selvage to selvage").click()
    page.wait_for_selector("line.fold", state="attached")
    choose_piece(page, "Front, 1")


def held(page: Page) -> None:
    """A piece in the hand, the ground it may lie on lit."""
    box = page.locator('.laid[aria-label^="Pocket"]').first.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 30, y + 10, steps=4)
    page.mouse.move(x + 70, y + 60, steps=8)
    page.wait_for_selector(".lit")


def seams(page: Page) -> None:
    """The diagram, with the worst seam's facts."""
    page.get_by_role("button", name="The seam Side seam").click()
    page.mouse.move(0, 0)


def seam_seen(page: Page) -> None:
    """The sleeve's seam as it will be seen."""
    seams(page)
    page.get_by_role("button", name="See it").click()
    page.locator(".seam-shown").wait_for()
    page.wait_for_timeout(400)


def on_border(page: Page) -> None:
    page.get_by_role("button", name="Lay the pieces").click()
    expect(page.get_by_role("button", name="Lay again")).to_be_enabled(timeout=60_000)
    choose_piece(page, "Cuff, 2")


def settled(page: Page) -> None:
    """Everything before cutting ticked or accepted, and cutting begun."""
    base = re.sub(r"/projects/.*", "", page.url)
    number = re.findall(r"projects/(\d+)", page.url)[0]
    address = f"{base}/api/projects/{number}/cut"
    ours = asking(f"{base}/")
    found = page.request.get(address).json()
    for line in found["before"]["lines"]:
        if line["state"] == "open":
            said = {"ticked": True} if line["by_hand"] else {"why": "a trial for the picture"}
            page.request.put(f"{address}/before", data={"key": line["key"], **said}, headers=ours)
    if not found["begun"]:
        found = page.request.post(address, headers=ours).json()
        for step in found["steps"][:3]:
            deed = {"round": step["round"], "key": step["key"], "kind": "cut"}
            page.request.post(f"{address}/deeds", data=deed, headers=ours)
    page.reload()
    page.locator(".table-picture svg").wait_for()


def spoilt(page: Page) -> None:
    """A piece that went wrong, and the ways out."""
    settled(page)
    page.get_by_role("button", name="← Back").click()
    page.get_by_role("button", name="Went wrong").click()
    page.get_by_role("button", name="It is spoilt").click()
    expect(page.locator(".again-does").first).to_be_visible(timeout=60_000)
    tried(page)


def taking_in(page: Page) -> None:
    """The garment's own pieces as many printed pages, looked into."""
    number = re.findall(r"projects/(\d+)", page.url)[0]
    base = re.sub(r"/projects/.*", "", page.url)
    printed = page.request.get(f"{base}/api/projects/{number}/pieces.file?kind=pdf").body()
    file = {"name": "overshirt.pdf", "mimeType": "application/pdf", "buffer": printed}
    page.locator('input[type="file"]').set_input_files(file)  # type: ignore[arg-type]
    page.get_by_role("button", name=re.compile("^Keep th")).wait_for()


def came_out(page: Page) -> None:
    """A garment measured after its third wash, and why it twisted."""
    base, number = re.sub(r"/projects/.*", "", page.url), re.findall(r"projects/(\d+)", page.url)[0]
    at, ours = f"{base}/api/projects/{number}/outcomes", asking(f"{base}/")
    there = page.request.get(at).json()["measurable"]
    for kind, what, value in (
        ("twist", "Front", "14 mm"), ("twist", "Back", "9 mm"), ("length", "Back", "69.7 cm"),
        ("seam", "Side seam", "1 mm"), ("laying", "Front", "1 mm"),
    ):  # fmt: skip
        number_ = next(one["number"] for one in there if (one["kind"], one["what"]) == (kind, what))
        told = {"kind": kind, "number": number_, "measured": value, "washes": 3}
        page.request.post(at, data=told, headers=ours)
    told = {"kind": "fit", "grade": 4, "washes": 3, "note": "the collar sits well"}
    page.request.post(at, data=told, headers=ours)
    page.reload()
    page.get_by_role("combobox", name="Complaint").select_option("It twists at the hem")
    page.locator(".reasons li").first.wait_for()


def bars(page: Page) -> None:
    page.get_by_role("button", name="Bars").click()


def tried(page: Page) -> None:
    """Waits until the lays on the side are there."""
    page.wait_for_timeout(1500)
    expect(page.locator(".progress [role=progressbar]")).to_have_count(0, timeout=120_000)


def try_remnant(page: Page) -> None:
    page.get_by_role("button", name=re.compile("slate blue")).click()
    tried(page)


def share(page: Page) -> None:
    page.get_by_label("Bow ties and cuffs").check()
    tried(page)


def strips(page: Page) -> None:
    for label, text in (
        ("Sewn to an edge of", "120 cm"),
        ("Finished depth", "14 cm"),
        ("The rectangle is long", "70 cm"),
        ("and wide", "45 cm"),
        ("Tape, cut width", "3 cm"),
    ):
        field = page.get_by_label(label, exact=True)
        field.fill(text)
        field.press("Enter")
    page.wait_for_selector("text=rounds")


def hung(page: Page) -> None:
    """A cloth that hangs crooked, tested twice."""
    for value, done in (("46 mm", None), ("24 mm", "pin")):
        if done:
            page.get_by_label("Done before it").select_option(done)
        field = page.get_by_label("Edges apart")
        field.fill(value)
        field.press("Enter")
        page.wait_for_selector(".hanging .reading")
        page.wait_for_timeout(300)
        page.get_by_role("button", name="Write this test down").click()
        page.wait_for_timeout(500)
    field = page.get_by_label("Edges apart")
    field.fill("18 mm")
    field.press("Enter")
    page.wait_for_timeout(700)


#: looked at while working, and not kept in docs/screenshots
ASIDE = {
    "treatment": ("Notched waistcoat", "shrink?part=treat", None),
    "buy-offers": ("Boxy overshirt", "buy?part=offers", tried),
    "plan-cuts": ("Notched waistcoat", "plan?part=cuts", None),
    "lay-border": ("Bow ties and cuffs", "lay", on_border),
    "lay-tablet": ("Boxy overshirt", "lay", None),
    "cut-order": ("Notched waistcoat", "cut?part=order", None),
    "cut-again": ("Bias slip", "cut", spoilt),
    "plan-stations": ("Six-gore skirt", "plan", stations),
    "together": ("Notched waistcoat", "shrink?part=set", None),
    "plan-sheet": ("Notched waistcoat", "plan?part=sheet", None),
    "cloth-bars": ("Six-gore skirt", "cloth", bars),
    "working": ("Six-gore skirt", "buy", opened_working),
    "lay-bias": ("Bias slip", "lay", lambda page: choose_piece(page, "Front, 1")),
    "buy-envelope": ("Boxy overshirt", "buy?part=envelope", None),
    "buy-share": ("Boxy overshirt", "buy?part=together", share),
    "buy-list": ("Six-gore skirt", "buy?part=list", None),
    "true-matter": ("Six-gore skirt", "true?part=matter", None),
    "lay-folded": ("Notched waistcoat", "lay", folded),
    "buy-cupboard": ("Bow ties and cuffs", "buy?part=cupboard", try_remnant),
    "buy-strips": ("Six-gore skirt", "buy?part=strips", strips),
}
#: view: (project, stage, what to do first)
VIEWS = {
    "bench": (None, "", None),
    "plan": ("Boxy overshirt", "plan", lambda page: choose_piece(page, "Sleeve")),
    "plan-piece": ("Notched waistcoat", "plan", piece_form),
    "taking-in": ("Boxy overshirt", "plan", taking_in),
    "cloth": ("Notched waistcoat", "cloth", None),
    "cupboard": (None, "cupboard", None),
    "shrink": ("Boxy overshirt", "shrink", None),
    "washing-day": (None, "washday", planned),
    "buy": ("Boxy overshirt", "buy", tried),
    "true": ("Six-gore skirt", "true", hung),
    "seams": ("Check waistcoat", "plan?part=seams", seams),
    "seam-seen": ("Check waistcoat", "plan?part=seams", seam_seen),
    "lay": ("Six-gore skirt", "lay", lambda page: choose_piece(page, "Gore, 2")),
    "lay-hand": ("Boxy overshirt", "lay", held),
    "cut-before": ("Six-gore skirt", "cut", None),
    "log": ("Boxy overshirt", "log", None),
    "outcome": ("Boxy overshirt", "log?part=outcome", came_out),
}
TABLET = {"cut-table": ("Boxy overshirt", "cut", settled)}
#: Sheets of paper: the garment, and what is printed.
SHEETS = {"cut-sheet": ("Notched waistcoat", "sheet.pdf")}


def sheets(base: str, out: Path) -> None:
    """All pages of a sheet side by side, as a picture."""
    listed = json.load(urllib.request.urlopen(f"{base}api/projects"))["projects"]
    for name, (garment, what) in SHEETS.items():
        number = next(one["id"] for one in listed if one["name"] == garment)
        paper = pypdfium2.PdfDocument(urllib.request.urlopen(f"{base}api/projects/{number}/cut/{what}").read())
        pages = [page.render(scale=1.3).to_pil() for page in paper]
        both = Image.new("RGB", (sum(one.width + 12 for one in pages) - 12, pages[0].height), "#8f897c")
        for k, one in enumerate(pages):
            both.paste(one, (k * (one.width + 12), 0))
        both.save(out / f"{name}.png")


def take(base: str, out: Path, names: list[str], tablet: bool) -> None:
    with sync_playwright() as play:
        browser = play.chromium.launch(executable_path=CHROMIUM, args=ARGS)
        views = dict(VIEWS) | TABLET | ASIDE
        for name in names or [*VIEWS, *TABLET]:
            project, stage, first = views[name]
            narrow = tablet or name in TABLET
            page = browser.new_page(
                viewport={"width": 820, "height": 1180} if narrow else {"width": 1280, "height": 800},
                locale="en-GB",
            )
            page.goto(base)
            page.wait_for_selector(".strip")
            if project:
                href = page.get_by_role("link", name=f"Open {project}", exact=True).get_attribute("href") or ""
                number = re.findall(r"\d+", href)[0]
                page.goto(f"{base}projects/{number}/{stage}")
                page.wait_for_selector("h1")
            elif stage:
                page.goto(f"{base}{stage}")
                page.wait_for_selector("h1")
            # a page always keeps one question waiting, so the network is never idle
            expect(page.get_by_text("Fetching …")).to_have_count(0, timeout=30_000)
            if first:
                first(page)
            page.wait_for_timeout(1200)
            page.screenshot(path=out / f"{name}.png")
            page.close()
        browser.close()
    if not names:
        sheets(base, out)


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("names", nargs="*")
    parser.add_argument("--base", help="a server that is running already")
    parser.add_argument("--out", type=Path, default=ROOT / "docs" / "screenshots")
    parser.add_argument("--tablet", action="store_true")
    args = parser.parse_args()
    args.out.mkdir(parents=True, exist_ok=True)
    if args.base:
        take(args.base, args.out, args.names, args.tablet)
        return 0
    with socket.create_server(("127.0.0.1", 0)) as free:
        port = free.getsockname()[1]
    with tempfile.TemporaryDirectory() as home:
        server = subprocess.Popen(
            [sys.executable, "-m", "idle_selvage.cli", "demo", "--no-quiet", "--home", home, "--port", str(port)]
        )
        try:
            for _ in range(400):
                time.sleep(0.25)
                try:
                    urllib.request.urlopen(f"http://127.0.0.1:{port}/api/health", timeout=2)
                    break
                except OSError:
                    continue
            take(f"http://127.0.0.1:{port}/", args.out, args.names, args.tablet)
        finally:
            server.terminate()
            server.wait(timeout=10)
    return 0


if __name__ == "__main__":
    sys.exit(main())
