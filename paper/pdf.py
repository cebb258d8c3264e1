"""A page as PDF: laid out for print, with the fonts in it, and with what it is made of named for
who has it read aloud. Nothing is fetched but the application's own style and fonts."""

from __future__ import annotations

import logging
import re
import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from functools import cache
from mimetypes import guess_type
from pathlib import Path
from typing import TYPE_CHECKING, Any
from xml.etree import ElementTree

import tinyhtml5
from django.conf import settings
from django.contrib.staticfiles import finders

from paper.pictures import put_in_images, style_of_drawings

if TYPE_CHECKING:
    from weasyprint import CSS

_logger = logging.getLogger(__name__)
# What lays out speaks of every rule that is for screens alone.
logging.getLogger("weasyprint").setLevel(logging.CRITICAL)
logging.getLogger("weasyprint.progress").propagate = False
SHEET = "app.css"
# The sizes of paper, by the key that a practice keeps. ISO 216; ANSI/ASME Y14.1
SIZES = {"letter": "letter", "a4": "A4"}
# Debian's packages that lay out letters; WeasyPrint calls them.
PACKAGES = "libpango-1.0-0 libpangoft2-1.0-0 libharfbuzz-subset0"
WITHOUT = (
    f"PDF needs Debian's {PACKAGES}. Whoever runs the application installs them: apt-get install "
    f"{PACKAGES}. Until then, print this page from the browser, which can also save it as PDF."
)


@dataclass(frozen=True)
class Pdf:
    """A file, and how many sheets it has."""

    content: bytes
    sheets: int


class NoPdf(Exception):
    """This machine cannot lay out a PDF; the message says what is missing, and what to do."""


@cache
def _library() -> Any:
    """What lays out, taken in when it is first wanted: it is slow to load. Raises NoPdf."""
    try:
        import weasyprint
    except OSError as error:
        _logger.warning("no PDF: %s", error)
        raise NoPdf(WITHOUT) from error
    return weasyprint


def can_make_pdf() -> bool:
    """Whether this machine can lay out a PDF."""
    try:
        _library()
    except NoPdf:
        return False
    return True


def _static(name: str) -> Path:
    """A file that ships with the application. Raises ValueError for anything else."""
    found = finders.find(name)
    if not found:
        raise ValueError(f"nothing of that name ships with the application: {name}")
    return Path(found)


def _fetched(address: str) -> tuple[bytes, str]:
    """What an address of a page stands for: a file that ships with the application, or data within
    the address; anything else is not looked for. Raises ValueError."""
    base = f"file://{settings.STATIC_URL}"
    if not address.startswith(base):
        raise ValueError("a paper is made of what ships with the application")
    path = _static(address.removeprefix(base))
    return path.read_bytes(), guess_type(path.name)[0] or "application/octet-stream"


@cache
def _fetcher() -> Any:
    library = _library()
    from weasyprint.urls import URLFetcherResponse

    class Shipped(library.URLFetcher):  # type: ignore[name-defined]
        def fetch(self, url: str, headers: dict[str, str] | None = None) -> Any:
            if url.startswith("data:"):
                return super().fetch(url, headers)
            content, kind = _fetched(url)
            return URLFetcherResponse(url, content, {"Content-Type": kind})

    return Shipped()


_HEX = re.compile(r"#([0-9a-fA-F]{6}|[0-9a-fA-F]{3})\b")


def _gray_of(found: re.Match[str]) -> str:
    """A color as the gray that is as light (ITU-R BT.601)."""
    code = found[1] if len(found[1]) == 6 else "".join(one * 2 for one in found[1])
    red, green, blue = (int(code[at : at + 2], 16) for at in (0, 2, 4))
    light = round(0.299 * red + 0.587 * green + 0.114 * blue)
    return f"#{light:02x}{light:02x}{light:02x}"


def _sheet_text(gray: bool) -> str:
    text = _static(SHEET).read_text()
    return _HEX.sub(_gray_of, text) if gray else text


@cache
def _read_once(version: float, gray: bool) -> tuple[CSS, Any]:
    """The style sheet as it stands, read once for all papers: it takes longer than a page."""
    library = _library()
    from weasyprint.text.fonts import FontConfiguration

    fonts = FontConfiguration()
    sheet = library.CSS(
        string=_sheet_text(gray),
        base_url=f"file://{settings.STATIC_URL}{SHEET}",
        url_fetcher=_fetcher(),
        media_type="print",
        font_config=fonts,
    )
    return sheet, fonts


class _Sheets(logging.Handler):
    """Hears of every sheet that is laid out by this thread."""

    def __init__(self, on_sheet: Callable[[int], None]) -> None:
        super().__init__()
        self.on_sheet, self.thread, self.sheets = on_sheet, threading.get_ident(), 0

    def emit(self, record: logging.LogRecord) -> None:
        if record.thread == self.thread and "Page " in record.getMessage():
            self.sheets += 1
            self.on_sheet(self.sheets)


@contextmanager
def _heard(on_sheet: Callable[[int], None] | None) -> Iterator[None]:
    progress = logging.getLogger("weasyprint.progress")
    if on_sheet is None:
        yield
        return
    hears = _Sheets(on_sheet)
    progress.setLevel(logging.INFO)
    progress.addHandler(hears)
    try:
        yield
    finally:
        progress.removeHandler(hears)


def pdf_of(
    page: str,
    *,
    size: str = "letter",
    gray: bool = False,
    on_sheet: Callable[[int], None] | None = None,
) -> Pdf:
    """A whole page of HTML as PDF, tagged as PDF/UA asks (ISO 14289-1).

    `size`: a key of SIZES. `on_sheet` is told of every sheet that is laid out; what it raises ends
    the work. Raises NoPdf on a machine without what lays out.
    """
    library = _library()
    sheet, fonts = _read_once(_static(SHEET).stat().st_mtime, gray)
    tree = tinyhtml5.parse(page, namespace_html_elements=False)
    put_in_images(tree, style_of_drawings(_sheet_text(gray), gray))
    paper = SIZES[size]
    sized = library.CSS(
        string=f"@page {{ size: {paper} }} @page door {{ size: {paper} landscape }}",
        font_config=fonts,
    )
    made = library.HTML(
        string=ElementTree.tostring(tree, encoding="unicode", method="html"),
        base_url=f"file://{settings.STATIC_URL}",
        url_fetcher=_fetcher(),
    )
    with _heard(on_sheet):
        laid_out = made.render(
            stylesheets=[sheet, sized], font_config=fonts, pdf_variant="pdf/ua-1", pdf_tags=True
        )
        content = laid_out.write_pdf(pdf_variant="pdf/ua-1", pdf_tags=True)
    return Pdf(content=content, sheets=len(laid_out.pages))
