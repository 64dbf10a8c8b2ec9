"""The daily copies on the bench: gone back to, and come back from; nothing by a slip."""

from __future__ import annotations

import re
from datetime import datetime

import pytest
from playwright.sync_api import Page, expect

from idle_selvage.api.services import Application
from idle_selvage.store.copies import daily_copy

from .test_access import faults

pytestmark = pytest.mark.browser


def test_gone_back_to_a_day_and_come_back(page: Page, own: str, application: Application) -> None:
    page.goto(own)
    page.get_by_label("A new project").fill("Skirt")
    page.keyboard.press("Enter")
    page.wait_for_url(re.compile("/projects/1/"))
    daily_copy(application.services.database.home, datetime(2026, 5, 1))
    page.goto(own)
    page.get_by_label("A new project").fill("Slip")
    page.keyboard.press("Enter")
    page.wait_for_url(re.compile("/projects/2/"))
    page.goto(own)
    strips = page.locator(".strips")
    expect(strips).to_contain_text("Slip")
    page.get_by_role("heading", name="Copies of each day").click()
    page.get_by_role("button", name=re.compile("^Go back to .*2026$")).click()
    asked = page.get_by_role("alertdialog", name="Going back")
    assert faults(page) == []
    # Enter at once leaves everything as it is
    expect(asked.get_by_role("button", name="Leave it as it is")).to_be_focused()
    page.keyboard.press("Enter")
    expect(asked).to_have_count(0)
    expect(strips).to_contain_text("Slip")
    page.get_by_role("button", name=re.compile("^Go back to .*2026$")).click()
    asked.get_by_role("button", name="Go back to it").dblclick()
    expect(strips).not_to_contain_text("Slip")
    expect(strips).to_contain_text("Skirt")
    page.get_by_role("heading", name="Copies of each day").click()
    page.get_by_role("button", name=re.compile("before going back")).click()
    asked.get_by_role("button", name="Go back to it").click()
    expect(strips).to_contain_text("Slip")


def test_a_page_whose_word_is_not_known_says_so_and_keeps_what_was_typed(
    page: Page, own: str, application: Application
) -> None:
    page.goto(own)
    kept = application.services.word
    application.services.word = "another, of another home folder"
    page.get_by_label("A new project").fill("Slip")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert").filter(has_text="Load the page again")).to_be_visible()
    expect(page.get_by_label("A new project")).to_have_value("Slip")
    application.services.word = kept
    page.get_by_role("button", name="Begin").click()
    page.wait_for_url(re.compile("/projects/1/"))
