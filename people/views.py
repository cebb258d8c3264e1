"""One's own settings, places and second step."""

from __future__ import annotations

from typing import Any

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import redirect, render
from django.views.decorators.http import require_POST
from django_otp import login as second_login
from django_otp_webauthn.models import WebAuthnCredential

from people import recent, second_step, sessions
from people.forms import FirstCodeForm, YouForm, wrong_password
from people.sign_in_record import tell
from practice.models import User
from practice.requests import SignedInRequest
from webkit.request_values import key_in


def you(request: SignedInRequest) -> HttpResponse:
    """What is one person's own: their name, whether letters are commands, how they sign in, and
    where they are signed in."""
    form = YouForm(request.POST or None, instance=User.objects.get(pk=request.user.pk))
    if form.is_valid() and "email" in form.changed_data and not recent.given(request):
        form.add_error(
            "email",
            "Links to a new password go there. Sign out, sign in again, and then change it.",
        )
    if request.method == "POST" and form.is_valid():
        form.save()
        messages.success(request, "Saved.")
        return redirect("you")
    status = 400 if request.method == "POST" else 200
    here = request.session.session_key
    context = {
        "form": form,
        "second_step": second_step.has_one(request.user),
        "codes_left": second_step.codes_left(request.user),
        "places": [
            {"row": row, "machine": sessions.words_of(row.browser), "here": row.session_key == here}
            for row in request.user.signed_in.all()
        ],
    }
    return render(request, "people/you.html", context, status=status)


@require_POST
def end_session(request: SignedInRequest) -> HttpResponse:
    """One's own session somewhere else ended, or all of them."""
    rows = request.user.signed_in.exclude(session_key=request.session.session_key or "")
    if "all" not in request.POST:
        rows = rows.filter(pk=key_in(request.POST.get("place")) or 0)
    count = sessions.end(rows)
    messages.success(request, f"Signed out at {count} place{'' if count == 1 else 's'}.")
    return redirect("you")


def set_up(request: SignedInRequest) -> HttpResponse:
    """The second step set up: the key for the phone, a code that shows that it took, and then the
    codes on paper. Who has one sees what there is of it."""
    user = request.user
    passkeys = second_step.passkeys_offered()
    if second_step.has_one(user):
        context: dict[str, Any] = {
            "passkeys": passkeys,
            "keys": WebAuthnCredential.objects.filter(user=user),
            "codes_left": second_step.codes_left(user),
        }
        return render(request, "people/second_step.html", context)
    device = second_step.begun(user)
    form = FirstCodeForm(request.POST or None)
    if request.method == "POST" and form.is_valid():
        if second_step.confirm(device, form.cleaned_data["code"].replace(" ", "")):
            second_login(request, device)
            sessions.end_elsewhere(user, request)
            tell(user, "second step", "set up")
            codes = second_step.new_codes(user)
            return render(request, "people/codes.html", {"codes": codes})
        form.add_error("code", "That is not what the phone should show now. Is its clock right?")
    context = {
        "form": form,
        "picture": second_step.picture(device),
        "key": second_step.typed_key(device),
        "passkeys": passkeys,
        "asked": user.practice is not None and user.practice.second_step,
    }
    return render(
        request, "people/set_up.html", context, status=400 if request.method == "POST" else 200
    )


@require_POST
def second_step_off(request: SignedInRequest) -> HttpResponse:
    """Take the second step off, or make new codes: with the password."""
    user = request.user
    if why := wrong_password(request, user, request.POST.get("password", "")):
        messages.error(request, f"{why} Nothing was changed.")
        return redirect("second-step")
    if "codes" in request.POST:
        tell(user, "codes on paper", "made anew")
        return render(request, "people/codes.html", {"codes": second_step.new_codes(user)})
    second_step.take_off(user)
    tell(user, "second step", "taken off")
    messages.success(request, "You sign in with the password alone now.")
    return redirect("you")
