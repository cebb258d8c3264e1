"""A page as PDF, read by another library: fonts within, tags, words for pictures, its size."""

import io
import logging
from unittest import mock

from django.test import SimpleTestCase
from pypdf import PdfReader

from paper import pdf
from paper.pdf import NoPdf, pdf_of

PAGE = (
    '<!doctype html><html lang="en"><head><title>A bowl</title></head><body><article '
    'class="paper"><h1>A bowl</h1><p>½ cup of beans</p>{}</article></body></html>'
)
ROUND = (
    '<svg class="round" viewBox="0 0 400 400" role="img" aria-label="Barley and beans">'
    '<path class="sector base" d="M200 200L200 40A160 160 0 0 1 360 200Z"/></svg>'
)


def opened(page: str, **asked: object) -> PdfReader:
    return PdfReader(io.BytesIO(pdf_of(page, **asked).content))


def roles_in(element: dict, found: list) -> list:
    """The kinds of a tree of tags, and the words for its pictures."""
    if "/S" in element:
        found.append((str(element["/S"]), str(element.get("/Alt", ""))))
    kids = element.get("/K", [])
    for kid in kids if isinstance(kids, list) else [kids]:
        one = kid.get_object() if hasattr(kid, "get_object") else kid
        if isinstance(one, dict):
            roles_in(one, found)
    return found


class Pdfs(SimpleTestCase):
    def test_it_is_tagged_and_says_its_title_and_language(self):
        read = opened(PAGE.format(ROUND))
        root = read.trailer["/Root"]
        self.assertTrue(root["/MarkInfo"]["/Marked"])
        self.assertEqual(root["/Lang"], "en")
        self.assertEqual(read.metadata.title, "A bowl")
        self.assertIn(b"pdfuaid", root["/Metadata"].get_object().get_data())
        roles = roles_in(root["/StructTreeRoot"].get_object(), [])
        self.assertIn(("/H1", ""), roles)
        self.assertIn(("/Figure", "Barley and beans"), roles)

    def test_every_font_is_within(self):
        read = opened(PAGE.format(""))
        fonts = read.pages[0]["/Resources"]["/Font"]
        names = set()
        for font in fonts.values():
            below = font.get_object()["/DescendantFonts"][0].get_object()
            descriptor = below["/FontDescriptor"].get_object()
            names.add(str(descriptor["/FontName"]))
            self.assertTrue({"/FontFile2", "/FontFile3"} & set(descriptor))
        self.assertTrue(any("Atkinson" in name for name in names))
        self.assertIn("½ cup of beans", read.pages[0].extract_text())

    def test_the_sizes_of_paper(self):
        # US letter is 8.5 x 11 in, A4 210 x 297 mm; [points]
        for size, wide, high in (("letter", 612, 792), ("a4", 595.28, 841.89)):
            box = opened(PAGE.format(""), size=size).pages[0].mediabox
            self.assertAlmostEqual(float(box.width), wide, places=1)
            self.assertAlmostEqual(float(box.height), high, places=1)

    def test_each_sheet_is_told_of_while_it_is_made(self):
        told: list[int] = []
        long = PAGE.format("<p>line</p>" * 200)
        made = pdf_of(long, on_sheet=told.append)
        self.assertGreater(made.sheets, 2)
        self.assertEqual(made.sheets, len(PdfReader(io.BytesIO(made.content)).pages))
        self.assertEqual(told[:2], [1, 2])

    def test_nothing_is_fetched_but_what_ships_with_it(self):
        for address in ("http://127.0.0.1:9/a.png", "file:///etc/passwd", "../../settings.py"):
            with self.subTest(address=address), mock.patch("socket.socket.connect") as asked:
                read = opened(PAGE.format(f'<img alt="x" src="{address}">'))
                asked.assert_not_called()
                self.assertNotIn("root:", read.pages[0].extract_text())
                self.assertEqual(len(read.pages[0].images), 0)

    def test_a_machine_that_cannot_says_who_helps(self):
        pdf._library.cache_clear()
        self.addCleanup(pdf._library.cache_clear)
        logging.disable(logging.WARNING)
        self.addCleanup(logging.disable, logging.NOTSET)
        with (
            mock.patch("builtins.__import__", side_effect=_without_pango),
            self.assertRaisesMessage(NoPdf, "libpango-1.0-0"),
        ):
            pdf_of(PAGE.format(""))


_IMPORT = __import__


def _without_pango(name, *args, **kwargs):
    if name == "weasyprint":
        raise OSError("cannot load library 'libpango-1.0-0'")
    return _IMPORT(name, *args, **kwargs)
