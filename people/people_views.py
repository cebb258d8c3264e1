"""The people of a practice, for its owners: asked in, changed, ended."""

from __future__ import annotations

from django.contrib import messages
from django.core.mail import send_mail
from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.template.loader import render_to_string
from django.urls import reverse
from django.utils import timezone
from django.views.decorators.debug import sensitive_post_parameters
from django.views.decorators.http import require_POST

from people import invitations, second_step, sessions
from people.forms import InviteForm, JoinForm, SignInRulesForm, role_choices
from people.links import password_path
from people.models import Invitation
from people.sign_in_record import tell, tell_link
from practice.models import Practice, User
from practice.requests import SignedInRequest
from practice.roles import OWNER, ROLES
from webkit.client_address import without_client

LAST_OWNER = "{name} is the only owner who is here: make somebody else an owner first."


def people(request: SignedInRequest) -> HttpResponse:
    """Who works here, who was asked, and how people come in."""
    return _page(request, InviteForm(), SignInRulesForm(instance=request.practice))


def _page(
    request: SignedInRequest,
    invite: InviteForm,
    how: SignInRulesForm,
    status: int = 200,
    link: dict[str, str] | None = None,
) -> HttpResponse:
    everybody = list(request.practice.users.order_by("ended", "first_name", "username"))
    context = {
        "here": [_row(one) for one in everybody if one.is_active],
        "gone": [one for one in everybody if not one.is_active],
        "asked": [one for one in request.practice.invitations.all() if one.open],
        "choices": role_choices(),
        "invite": invite,
        "how": how,
        "link": link,
    }
    return render(request, "people/people.html", context, status=status)


def _row(user: User) -> dict[str, object]:
    last = user.signed_in.first()
    return {
        "user": user,
        "second": second_step.has_one(user),
        "places": user.signed_in.count(),
        "used": last.used if last else user.last_login,
    }


@require_POST
def invite(request: SignedInRequest) -> HttpResponse:
    """Offer a place: the link is shown this once, and sent where there is an address."""
    form = InviteForm(request.POST)
    how = SignInRulesForm(instance=request.practice)
    if not form.is_valid():
        return _page(request, form, how, 400)
    said = form.cleaned_data
    token = invitations.invite(
        request.practice, request.user, said["name"], said["email"], said["role"]
    )
    address = request.build_absolute_uri(without_client(reverse("join", args=[token])))
    mailed = bool(said["email"]) and _mail(
        said["email"],
        f"A place at {request.practice.name}",
        "people/mail_invitation.txt",
        {"practice": request.practice, "by": request.user, "link": address, "name": said["name"]},
    )
    link = {"for": said["name"], "address": address, "what": "takes the place, for seven days"}
    link["mailed"] = said["email"] if mailed else ""
    return _page(request, InviteForm(), how, link=link)


def _mail(to: str, subject: str, template: str, context: dict[str, object]) -> bool:
    """Whether it left. One that did not is said, and loses nothing: the link is on the page."""
    try:
        return bool(send_mail(subject, render_to_string(template, context), None, [to]))
    except OSError:
        return False


@require_POST
def withdraw(request: SignedInRequest, pk: int) -> HttpResponse:
    row = get_object_or_404(Invitation, pk=pk, practice=request.practice)
    if row.open:
        row.withdrawn = timezone.now()
        row.save(update_fields=["withdrawn"])
        messages.success(request, f"The link of {row.name} opens nothing now.")
    return redirect("people")


def _kept_as_owner(request: SignedInRequest, user: User) -> bool:
    """Whether somebody has to stay an owner who is here, which is said: there is no other."""
    owners = request.practice.users.filter(role=OWNER, is_active=True)
    alone = user.role == OWNER and not owners.exclude(pk=user.pk).exists()
    if alone:
        messages.error(request, LAST_OWNER.format(name=user.shown_name))
    return alone


@require_POST
def change(request: SignedInRequest, pk: int) -> HttpResponse:
    """A role changed, somebody ended or taken in again, a link to a new password, the second step
    taken off for one who lost the phone."""
    user = get_object_or_404(User, pk=pk, practice=request.practice)
    asked = request.POST
    with transaction.atomic():
        user.refresh_from_db()
        if "role" in asked:
            _set_role(request, user, asked["role"])
        elif "end" in asked:
            _end(request, user)
        elif "back" in asked and not user.is_active:
            user.is_active, user.ended = True, None
            user.save(update_fields=["is_active", "ended"])
            messages.success(request, f"{user.shown_name} works here again.")
        elif "out" in asked and user != request.user:
            count = sessions.end(user.signed_in.all())
            messages.success(request, f"{user.shown_name} is signed out at {count} places.")
        elif "second-step" in asked and user != request.user:
            second_step.take_off(user)
            tell(user, "second step", "taken off")
            sessions.end(user.signed_in.all())
            messages.success(
                request, f"{user.shown_name} signs in with the password alone, once more."
            )
    if "password" in asked and user.is_active:
        how = SignInRulesForm(instance=request.practice)
        tell_link(user)
        return _page(request, InviteForm(), how, link=_password_link(request, user))
    return redirect("people")


def _set_role(request: SignedInRequest, user: User, role: str) -> None:
    if role not in ROLES:
        messages.error(request, "There is no such role.")
    elif user.role != role and not _kept_as_owner(request, user):
        user.role = role
        user.save(update_fields=["role"])
        messages.success(request, f"{user.shown_name} is {ROLES[role].name} now.")


def _end(request: SignedInRequest, user: User) -> None:
    if _kept_as_owner(request, user):
        return
    user.is_active, user.ended = False, timezone.now()
    user.save(update_fields=["is_active", "ended"])
    sessions.end(user.signed_in.all())
    messages.success(request, f"{user.shown_name} no longer works here, and is signed out.")


def _password_link(request: HttpRequest, user: User) -> dict[str, str]:
    return {
        "for": user.shown_name,
        "address": request.build_absolute_uri(password_path(user)),
        "what": "leads to a new password, once, for a day",
        "mailed": "",
    }


@require_POST
def rules(request: SignedInRequest) -> HttpResponse:
    """How people come in."""
    practice = Practice.objects.get(pk=request.practice.pk)
    form = SignInRulesForm(request.POST, instance=practice)
    if not form.is_valid():
        return _page(request, InviteForm(), form, 400)
    form.save()
    messages.success(request, "Saved.")
    return redirect("people")


@sensitive_post_parameters("password1", "password2")
def join(request: HttpRequest, token: str) -> HttpResponse:
    """A place taken by whoever has its link, and nobody signed in for it."""
    offered = invitations.invited_by(token)
    if offered is None:
        return render(request, "people/no_place.html", status=410)
    first, _, last = offered.name.partition(" ")
    form = JoinForm(request.POST or None, initial={"first_name": first, "last_name": last})
    if request.method == "POST" and form.is_valid():
        person = form.save(commit=False)
        person.set_password(form.cleaned_data["password1"])
        if invitations.take(token, person) is None:
            return render(request, "people/no_place.html", status=410)
        messages.success(request, "The place is yours. Sign in.")
        return redirect("sign-in")
    context = {"form": form, "offered": offered, "role": ROLES[offered.role]}
    status = 400 if request.method == "POST" else 200
    return render(request, "people/join.html", context, status=status)
