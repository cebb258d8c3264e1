"""What the demo practice hands over: its mark, a letter that waits for an answer, next visits, a
client's link and what came back by it."""

from __future__ import annotations

import io
from collections.abc import Mapping
from datetime import timedelta

from django.utils import timezone
from PIL import Image, ImageDraw

from clients.models import Client
from handouts.models import CalendarWish
from journal.letters.draft import begun, values_of
from journal.models import Appointment, Letter
from paper.marks import keep_mark
from practice.models import Practice, User
from shared_with.models import SHOWS, Link
from shared_with.telling import take

# Who has a letter under way, a link, and when they come next [days from today, hour].
LETTER_ABOUT, LINKED = "charts", "charts"
NEXT = (("charts", 9, 10), ("ferry", 16, 15), ("rower", 23, 9))
# The ferry engineer eats by night.
NIGHT = {"breakfast": 1050, "lunch": 60, "snack": 240, "dinner": 420}


def load_handing_over(practice: Practice, user: User, clients: Mapping[str, Client]) -> None:
    """All of it. The days and weeks must be there."""
    _mark(practice)
    _letter(practice, user, clients[LETTER_ABOUT])
    midnight = timezone.localtime().replace(hour=0, minute=0, second=0, microsecond=0)
    for key, days, hour in NEXT:
        at = midnight + timedelta(days=days, hours=hour)
        Appointment.objects.create(client=clients[key], at=at, words="Bring the log")
    CalendarWish.objects.create(
        client=clients["ferry"],
        kinds=["meals", "cooking", "soaking", "thawing", "visit"],
        times=NIGHT,
        weigh_day=0,
    )
    _link(practice, user, clients[LINKED])


def _mark(practice: Practice) -> None:
    """A kettle's lid on the water: a disk and two waves."""
    picture = Image.new("RGBA", (600, 300), (255, 255, 255, 0))
    draw = ImageDraw.Draw(picture)
    blue = (30, 58, 123, 255)
    draw.ellipse((40, 40, 260, 260), outline=blue, width=18)
    draw.pieslice((70, 70, 230, 230), 270, 30, fill=blue)
    for at in (150, 210):
        for left in (300, 380, 460):
            draw.arc((left, at - 30, left + 80, at + 30), 200, 340, fill=blue, width=14)
    out = io.BytesIO()
    picture.save(out, "PNG")
    keep_mark(practice, io.BytesIO(out.getvalue()), out.tell())


def _letter(practice: Practice, user: User, client: Client) -> None:
    on = timezone.localdate() - timedelta(days=3)
    letter = Letter.objects.create(
        practice=practice,
        client=client,
        date=on,
        to="Dr. Inga Solberg, nephrology",
        where="Harbor clinic, Harrow Sound",
        words=begun(client, on)
        | {"asked": "You asked for a diet that spares the kidneys and that she will keep."},
        by=user,
    )
    letter.figures = [[one.name, one.said, one.standing, one.on] for one in values_of(letter)]
    letter.signed = timezone.now() - timedelta(days=3)
    letter.signed_as = f"{user.shown_name}, RDN"
    letter.save()


def _link(practice: Practice, user: User, client: Client) -> None:
    """A link that was used: a weight, and how a day felt, which nobody has seen yet."""
    now = timezone.now()
    link = Link.objects.create(
        practice=practice,
        client=client,
        shows=list(SHOWS),
        until=timezone.localdate() + timedelta(days=60),
        by=user,
    )
    last = client.last_weight_kg or client.weight_kg
    yesterday = f"{timezone.localdate() - timedelta(days=1)}"
    for name, more in (
        ("demo-weight", {"kind": "weight", "kg": f"{last + 0.2:.1f}"}),
        ("demo-felt-1", {"kind": "felt", "hunger": "3", "energy": "6", "sleep": "7"}),
    ):
        take(link, {"name": name, "on": yesterday} | more, now)
