"""Letters to a physician: begun from the record, written, signed, printed; what came back."""

from __future__ import annotations

from typing import Any

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.utils import timezone
from django.utils.dateformat import format as dated
from django.views.decorators.http import require_POST

from clients.models import Client
from clients.pages.client_records import ClientRecordPages
from clients.pages.context import PageRequest
from journal.client_pages import for_a_client
from journal.letters.draft import SECTIONS, asked_lines, begun, values_of
from journal.letters.forms import AnswerForm, LetterForm
from journal.models import Letter
from paper.sheets import Paper, answer
from practice.removal import offered_back
from practice.versioned import StaleSave, version_in


class LetterPages(ClientRecordPages[Letter]):
    """A letter that is not signed is put away, or brought back; a signed one stays."""

    app, noun, model = "journal", "letter", Letter
    list_name, page_name = "letters", "letter"

    def named(self, letter: Letter) -> str:
        return f"The letter of {letter.date:%B %-d}"

    def put_away(self, request: PageRequest, letter: Letter) -> str:
        if letter.signed:
            messages.error(request, "A signed letter stays in the record.")
            return self.address(letter)
        letter.remove(request.user)
        messages.info(request, "The letter is archived; it can be brought back below.")
        return self.list_address


PAGES = LetterPages()


@for_a_client
def letters(request: PageRequest, client: Client) -> HttpResponse:
    context = {
        "client": client,
        "letters": client.letters.all()[:50],
        "removed": offered_back(client.letters(manager="with_removed")),
    }
    return render(request, "journal/letters.html", context)


@require_POST
@for_a_client
def new(request: PageRequest, client: Client) -> HttpResponse:
    """A letter begun from the record; one of today that is not signed is gone on with."""
    today = timezone.localdate()
    there = client.letters.filter(signed=None, date=today).first()
    before = client.letters.exclude(to="").first()
    letter = there or Letter.objects.create(
        practice=request.practice,
        client=client,
        date=today,
        to=before.to if before else "",
        where=before.where if before else "",
        words=begun(client, today),
        by=request.user,
    )
    return redirect("journal:letter", letter.pk)


def _page(request: PageRequest, letter: Letter, status: int = 200, **forms_of: Any) -> HttpResponse:
    signed_as = {"signed_as": request.user.shown_name}
    context = {
        "client": letter.client,
        "letter": letter,
        "form": LetterForm(instance=letter, initial=signed_as),
        "answer_form": AnswerForm(instance=letter),
        "values": values_of(letter),
        "sections": [(name, letter.words.get(key, "")) for key, name, _ask in SECTIONS],
    }
    return render(request, "journal/letter.html", context | forms_of, status=status)


def letter(request: PageRequest, pk: int) -> HttpResponse:
    row, elsewhere = PAGES.opened(request, pk)
    if elsewhere or request.method != "POST":
        return elsewhere or _page(request, row)
    return _save(request, row)


def _save(request: PageRequest, row: Letter) -> HttpResponse:
    """What was written is kept; or kept and signed."""
    if row.signed:
        messages.error(request, "This letter was signed meanwhile, and stays as it is.")
        return _page(request, row, 409)
    form = LetterForm(request.POST, instance=row)
    valid, signing = form.is_valid(), "sign" in request.POST
    if valid and signing and not form.cleaned_data["signed_as"]:
        form.add_error("signed_as", "Write your name, and what you sign as.")
    if valid and signing and not form.cleaned_data["to"]:
        form.add_error("to", "Write to whom it goes.")
    if form.errors:
        return _page(request, row, 400, form=form)
    row.words = form.written
    if signing:
        row.figures = [[one.name, one.said, one.standing, one.on] for one in values_of(row)]
        row.signed, row.signed_as = timezone.now(), form.cleaned_data["signed_as"]
        row.by = request.user
    try:
        row.save_over(version_in(request.POST.get("version")) or 0)
    except StaleSave as error:
        # what was typed stays, over what a colleague kept meanwhile
        kept: Letter = error.current
        if kept.signed:
            return _save(request, kept)
        return _page(request, kept, 409, form=form, theirs=kept.words)
    messages.success(request, "Signed. It is closed." if signing else "Saved.")
    return redirect("journal:letter", row.pk)


@require_POST
def answered(request: PageRequest, pk: int) -> HttpResponse:
    """What the physician answered, by name and license."""
    row, elsewhere = PAGES.opened(request, pk)
    if elsewhere:
        return elsewhere
    form = AnswerForm(request.POST, instance=row)
    if not row.signed or not form.is_valid():
        return _page(request, PAGES.stored(pk), 400, answer_form=form)
    form.save()
    messages.success(request, "Kept. Put what they order into the targets below.")
    return redirect("journal:letter", pk)


def letter_paper(request: PageRequest, pk: int) -> HttpResponse:
    row, elsewhere = PAGES.opened(request, pk)
    return elsewhere or answer(request, paper_of(row))


def paper_of(letter: Letter) -> Paper:
    """A letter on one page, with room for the answer."""
    context = {
        "client": letter.client,
        "letter": letter,
        "values": values_of(letter),
        "sections": [
            (name, letter.words.get(key, "")) for key, name, _ask in SECTIONS if key != "orders"
        ],
        "requests": asked_lines(letter.words.get("orders", "")),
    }
    return Paper(
        title=f"Letter, {dated(letter.date, 'F j, Y')}",
        template="journal/letter_paper.html",
        context=context,
        back=(reverse("journal:letter", args=[letter.pk]), "Back to the letter"),
        kind="one-page letter-paper",
        to_client=False,
    )
