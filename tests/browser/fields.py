"""Choosing in the fields of the interface, as a person does."""

from typing import Any

from playwright.sync_api import Locator, Page


def select(place: Page | Locator, label: str) -> Locator:
    """The field of a choice, with what is chosen as its text."""
    page = place if isinstance(place, Page) else place.page
    return place.locator(".el-select").filter(has=page.get_by_label(label, exact=True))


def choose(place: Page | Locator, label: str, option: str) -> None:
    """Open a choice and take one of its options, by its words."""
    page = place if isinstance(place, Page) else place.page
    select(place, label).click()
    page.get_by_role("option", name=option, exact=True).click()


def upload(page: Page, button: str, file: Any) -> None:
    """Give a file to the button that asks for one."""
    page.locator(".el-upload", has_text=button).locator("input").set_input_files(file)


def from_menu(page: Page, menu: str, item: str) -> None:
    """Open a menu and take one of its items."""
    page.get_by_role("button", name=menu).click()
    page.get_by_role("menuitem", name=item, exact=True).click()
