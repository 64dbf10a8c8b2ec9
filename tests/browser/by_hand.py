"""What a hand does on the screens, whatever they are made of."""

from __future__ import annotations

from playwright.sync_api import Page, expect


def pick(page: Page, label: str, words: str) -> None:
    """Choose from a long list by typing a part of its words."""
    # until its search is there, it is the system's own list
    field = page.get_by_label(label, exact=True).and_(page.locator("input"))
    field.click()
    field.fill(words)
    # the list that was open before may still be going
    expect(page.locator(".ant-select-item-option-active:visible").filter(has_text=words).first).to_be_visible()
    field.press("Enter")
