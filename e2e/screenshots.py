"""Remake the pictures of the main views from a fresh demo database."""

import argparse
from pathlib import Path
from urllib.parse import urlencode

from playwright.sync_api import ViewportSize

from e2e.browser import chromium, sign_in
from e2e.serving import BASE, ROOT, serving_demo


def go(link: str):
    return lambda page: page.get_by_role("link", name=link, exact=True).first.click()


def person(name: str):
    """The page of a client, from the list."""

    def do(page):
        page.goto(f"{BASE}/clients/?{urlencode({'q': name})}")
        go(name)(page)

    return do


def look(words):
    """Search a list by words."""

    def do(page):
        page.locator("#q").fill(words)
        page.wait_for_timeout(600)

    return do


def first_week(page):
    page.locator("#rows td a").first.click()


def first_session(page):
    page.locator("main a[href*='/kitchen/']", has_text="dishes").or_(
        page.get_by_role("link", name="Its timeline")
    ).first.click()


def steps_done(count: int):
    """So many steps of a session done, until something goes on by itself."""

    def do(page):
        for _step in range(count):
            page.get_by_role("button", name="Done", exact=True).click()
            page.wait_for_timeout(300)

    return do


def on_their_phone(page):
    address = page.locator(".link-address").first.input_value()
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(address)


# two of the demo's bowls, brought to the same calories
TWO_PLATES = "/compare/?with=bowl-1&with=bowl-4&basis=calories"
# name: what to do after opening the address
VIEWS = {
    "clients": ("/clients/", []),
    "client": ("/clients/", [person("Ilse Varga-Holm")]),
    "first-visit": ("/clients/", [go("Go on")]),
    "follow-up": ("/clients/", [person("Osk Brannigan"), go("Follow up")]),
    "why": ("/clients/", [person("Osk Brannigan"), go("see why")]),
    "visit": (
        "/clients/",
        [
            person("Osk Brannigan"),
            go("Follow up"),
            lambda page: page.locator(
                "main a[href*='/visits/']:not([href$='/visits/'])"
            ).first.click(),
        ],
    ),
    "hand-over": ("/clients/", [person("Osk Brannigan"), go("Hand over")]),
    "link": (
        "/clients/",
        [person("Ilse Varga-Holm"), go("Hand over"), go("Their link"), on_their_phone],
    ),
    "package": (
        "/clients/",
        [
            person("Ilse Varga-Holm"),
            go("Pantry"),
            go("Foods of the practice"),
            go("Oat drink, harbor shop"),
            lambda page: page.get_by_label("Eaten of it").press_sequentially("half the package"),
            lambda page: page.get_by_text("Eaten 494 g").wait_for(),
        ],
    ),
    "recipe": ("/recipes/", [go("Dill barley with white beans")]),
    "bowl": ("/bowls/", [go("Harbor night flask")]),
    "day": (
        "/clients/",
        [
            person("Ilse Varga-Holm"),
            lambda page: (
                page.locator("main a[href*='/days/']:not([href$='/days/'])").nth(1).click()
            ),
        ],
    ),
    "balance": (
        "/bowls/",
        [
            go("Keel and ribs"),
            go("Balance"),
            lambda page: page.wait_for_selector("#balance .proposal"),
        ],
    ),
    "week": ("/clients/?q=jens", [go("Jens Halloran"), go("Week"), first_week]),
    "shopping": ("/clients/?q=jens", [go("Jens Halloran"), go("Week"), first_week, go("Shopping")]),
    "two-plates": ("/compare/", [lambda page: page.goto(BASE + TWO_PLATES)]),
    "ladder": ("/clients/", [person("Wren Adeyemi-Lund"), go("Density ladder")]),
    "timeline": ("/clients/?q=osk", [go("Osk Brannigan"), go("Kitchen"), first_session]),
    "cooking": (
        "/clients/?q=osk",
        [go("Osk Brannigan"), go("Kitchen"), first_session, go("Cook it"), steps_done(3)],
    ),
}


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("names", nargs="*", default=list(VIEWS))
    parser.add_argument("--to", type=Path, default=ROOT / "docs" / "screenshots")
    parser.add_argument("--width", type=int, default=1280)
    parser.add_argument("--full", action="store_true", help="the whole page, however long")
    args = parser.parse_args()
    args.to.mkdir(parents=True, exist_ok=True)
    with serving_demo(), chromium() as browser:
        size = ViewportSize(width=args.width, height=800 if args.width > 500 else 844)
        page = browser.new_page(viewport=size)
        page.on(
            "console",
            lambda message: (
                print(f"console: {message.text}") if message.type in ("error", "warning") else None
            ),
        )
        sign_in(page, BASE, "marin", "tern-point-kettle")
        for name in args.names:
            address, steps = VIEWS[name]
            page.set_viewport_size(size)
            page.goto(BASE + address)
            for step in steps:
                step(page)
                page.wait_for_load_state()
            page.evaluate("document.fonts.ready")
            page.screenshot(path=args.to / f"{name}.png", full_page=args.full)
            print(f"{name}.png")


if __name__ == "__main__":
    main()
