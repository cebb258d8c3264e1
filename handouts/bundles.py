"""Papers made into one file beside the page that waits for it."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from datetime import timedelta

from django.utils import timezone

from clients.models import Client
from handouts.asking import asked_by
from handouts.models import Bundle
from handouts.papers import Offer, offers
from jobs.models import Job
from jobs.queue import begin
from jobs.work import CannotBe, Tell
from paper.options import GRAY, LARGE, wanted_in
from paper.pdf import NoPdf, Pdf, pdf_of
from paper.sheets import whole
from practice.models import User
from webkit.client_address import addresses_for

KIND = "papers"
KEPT = timedelta(days=1)
# Of the work, writing the papers takes so much, laying them out the rest. [share]
WRITING = 0.25
# A sheet that is laid out brings it so much nearer to its end. [share]
A_SHEET = 0.08


def about(client: Client) -> str:
    return f"client-{client.pk}"


def begin_bundle(
    client: Client, by: User, title: str, keys: Sequence[str], options: Sequence[str]
) -> Job:
    """Ask for the papers with these keys as one file; options are those of paper.options."""
    asked = {"client": client.pk, "title": title, "keys": list(keys), "options": list(options)}
    return begin(client.practice, by, KIND, about(client), asked)


def make(job: Job, tell: Tell) -> list[str]:
    """Make what a job asks for; the number of what was made, to be fetched. Raises CannotBe."""
    client = Client.objects.filter(pk=job.asked["client"]).first()
    if client is None:
        raise CannotBe("This client is archived: nothing was made.")
    there = {one.key: one for one in offers(client)}
    chosen = [there[key] for key in job.asked["keys"] if key in there]
    if not chosen:
        raise CannotBe("Nothing of what was ticked is there any more.")
    made = _written(job, client, chosen, tell)
    title = str(job.asked["title"])[:120]
    Bundle.objects.filter(client=client, made__lt=timezone.now() - KEPT).delete()
    row = Bundle.objects.create(client=client, title=title, file=made.content, sheets=made.sheets)
    return [str(row.pk)]


def _written(job: Job, client: Client, chosen: Sequence[Offer], tell: Tell) -> Pdf:
    options = {name: "1" for name in job.asked["options"] if name in (LARGE, GRAY)}
    wanted = wanted_in(options)
    papers = []
    with addresses_for(client.pk):
        for at, one in enumerate(chosen):
            if tell(WRITING * at / len(chosen), one.name):
                raise CannotBe("It was stopped.")
            papers.append(one.make(asked_by(job.practice, job.by, client, options)))
        tell(WRITING, "the sheets are begun")
        page = whole(
            asked_by(job.practice, job.by, client, options),
            papers,
            wanted,
            title=job.asked["title"],
        )
    try:
        return pdf_of(
            page, size=job.practice.paper_size, gray=wanted.gray, on_sheet=_sheets_told(tell)
        )
    except NoPdf as error:
        raise CannotBe(str(error)) from error


def _sheets_told(tell: Tell) -> Callable[[int], None]:
    """How many sheets there will be is not known before they are: each brings the end nearer."""

    def told(sheet: int) -> None:
        left = (1 - WRITING) * (1 - A_SHEET) ** sheet
        if tell(1 - left, f"sheet {sheet} is laid out"):
            raise CannotBe("It was stopped.")

    return told
