"""A paper: what stands on it, and how it is answered, as a page that is printed or as PDF."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from django.http import HttpResponse
from django.shortcuts import render
from django.template.loader import render_to_string
from django.utils.text import slugify

from paper.marks import in_gray, mark_of
from paper.options import AS_PDF, GRAY, LARGE, Wanted, address_of, wanted_in
from paper.pdf import NoPdf, pdf_of
from paper.reading import read_words
from practice.requests import SignedInRequest

# What stands around the frame of papers: the page that they are looked at on, and nothing but them.
ON_SCREEN, WITHIN = "base.html", "paper/within.html"


@dataclass(frozen=True)
class Choice:
    """Another kind of the same paper: what its address asks for, the words that lead to it, and
    those that lead back."""

    name: str
    words: str
    back: str


@dataclass(frozen=True, kw_only=True)
class Paper:
    """One thing that is handed over. `template` extends paper/frame.html; `back` is the address and
    the words of the page that it is of; `kind` what the style sheet knows it by. `framed`: with the
    practice's name and mark, and the caution; `to_client`: read by whom it is for, and not by a
    colleague."""

    title: str
    template: str
    context: Mapping[str, Any]
    back: tuple[str, str]
    whom: str = ""
    kind: str = ""
    framed: bool = True
    to_client: bool = True
    choices: Sequence[Choice] = field(default=())
    # said beside it on the screen
    note: str = ""

    @property
    def file_name(self) -> str:
        return f"{slugify(self.title)[:80] or 'paper'}.pdf"


def _frame(request: SignedInRequest, papers: Sequence[Paper], wanted: Wanted) -> dict[str, Any]:
    """What the frame around papers needs."""
    asked = request.GET.dict()
    one, mark = papers[0], mark_of(request.practice)
    return {
        "practice": request.practice,
        "mark": in_gray(mark) if wanted.gray else mark,
        "wanted": wanted,
        "paper": one,
        "pdf_address": address_of(asked, **{AS_PDF: True}),
        "large_address": address_of(asked, **{LARGE: not wanted.large}),
        "gray_address": address_of(asked, **{GRAY: not wanted.gray}),
        "others": [
            (choice.back, address_of(asked, **{choice.name: False}))
            if choice.name in asked
            else (choice.words, address_of(asked, **{choice.name: True}))
            for choice in one.choices
        ],
    }


def answer(request: SignedInRequest, paper: Paper) -> HttpResponse:
    """The paper as the address asks for it. A machine that cannot make a PDF says so on the page,
    which can be printed all the same."""
    wanted = wanted_in(request.GET)
    context = {**_frame(request, [paper], wanted), **paper.context}
    if wanted.pdf:
        try:
            return pdf_answer(whole(request, [paper], wanted), paper.file_name, request, wanted)
        except NoPdf as error:
            context["no_pdf"] = str(error)
    if paper.to_client:
        inner = render_to_string(paper.template, context | {"outer": WITHIN}, request)
        context["reads"] = read_words(inner)
    return render(request, paper.template, context | {"outer": ON_SCREEN, "on_screen": True})


def whole(
    request: SignedInRequest, papers: Sequence[Paper], wanted: Wanted, title: str = ""
) -> str:
    """The papers one after the other as one page of HTML, each beginning a sheet."""
    shared = _frame(request, papers, wanted)
    parts = [
        render_to_string(
            one.template, {**shared, **one.context, "paper": one, "outer": WITHIN}, request
        )
        for one in papers
    ]
    named = {"parts": _named_apart(parts), "title": title or papers[0].title}
    return render_to_string("paper/alone.html", {**shared, **named}, request)


def _named_apart(parts: Sequence[str]) -> list[str]:
    """The parts with no name of an element in two of them: a drawing would take another's
    hatch."""
    if len(parts) == 1:
        return list(parts)
    return [
        re.sub(r'(\bid="|\bfor="|href="#|aria-labelledby="|url\(#)', rf"\g<1>p{at}-", part)
        for at, part in enumerate(parts)
    ]


def pdf_answer(page: str, name: str, request: SignedInRequest, wanted: Wanted) -> HttpResponse:
    """A page as a PDF that is shown and kept under a name of its own. Raises NoPdf."""
    made = pdf_of(page, size=request.practice.paper_size, gray=wanted.gray)
    answered = HttpResponse(made.content, content_type="application/pdf")
    answered["Content-Disposition"] = f'inline; filename="{name}"'
    return answered
