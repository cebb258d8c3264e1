"""Signing in, with a second step where somebody has one; one's own settings."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Any

from django.contrib import messages
from django.contrib.auth import login, update_session_auth_hash
from django.contrib.auth.views import (
    LoginView,
    PasswordChangeView,
    PasswordResetConfirmView,
    PasswordResetView,
)
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse, reverse_lazy
from django.utils import timezone
from django.views.decorators.debug import sensitive_post_parameters
from django.views.decorators.http import require_POST
from django_otp import login as second_login
from django_otp_webauthn.models import WebAuthnCredential

from people import recent, second_step, sessions, slowing, told
from people.forms import CodeForm, FirstCodeForm, SignInForm, YouForm, waiting_words
from practice.models import User
from practice.requests import SignedInRequest

# Who gave the right password has so long for the second step.
HALF_WAY = timedelta(minutes=5)
HALF = "half-signed-in"
BACKEND = "django.contrib.auth.backends.ModelBackend"


class SignIn(LoginView):
    template_name = "people/sign_in.html"
    authentication_form = SignInForm
    redirect_authenticated_user = True

    def form_valid(self, form: Any) -> HttpResponse:
        user = form.get_user()
        if second_step.has_one(user):
            self.request.session[HALF] = {
                "who": user.pk,
                "at": timezone.now().isoformat(),
                "hash": user.get_session_auth_hash(),
                "next": self.get_success_url(),
            }
            return redirect("sign-in-code")
        response = super().form_valid(form)
        slowing.know_again(self.request, response, user.username)
        return response

    def form_invalid(self, form: Any) -> HttpResponse:
        status = 429 if form.slowed else 200
        return self.render_to_response(self.get_context_data(form=form), status=status)

    def get_context_data(self, **kwargs: Any) -> dict[str, Any]:
        offered = second_step.passkeys_offered(self.request)
        return super().get_context_data(**kwargs) | {"passkeys": offered}


def _half_way(request: HttpRequest) -> tuple[User, str] | None:
    """Who gave the right password a moment ago, and where they go; None for nobody, for one who
    took too long, and for one whose password changed meanwhile."""
    kept = request.session.get(HALF)
    if not kept:
        return None
    age = timezone.now() - datetime.fromisoformat(kept["at"])
    user = User.objects.filter(pk=kept["who"], is_active=True).first()
    if user is None or not timedelta() <= age <= HALF_WAY:
        return None
    return (user, kept["next"]) if user.get_session_auth_hash() == kept["hash"] else None


@sensitive_post_parameters("code")
def code(request: HttpRequest) -> HttpResponse:
    """The second step."""
    found = _half_way(request)
    if found is None:
        request.session.pop(HALF, None)
        messages.info(request, "Begin with your name and password.")
        return redirect("sign-in")
    user, to = found
    form = CodeForm(request.POST or None)
    status = 400 if request.method == "POST" else 200
    if request.method == "POST" and form.is_valid():
        tried, wait = slowing.begin_try(request, user.username)
        if tried is None:
            words = waiting_words(wait.total_seconds())
            form.add_error("code", f"Too many wrong codes. Wait {words}.")
            status = 429
        elif (device := second_step.matched(user, form.cleaned_data["code"])) is None:
            form.add_error("code", "That is not the code now, or it was used before.")
        else:
            tried.delete()
            slowing.succeeded(request, user.username)
            request.session.pop(HALF, None)
            login(request, user, BACKEND)
            second_login(request, device)
            response = redirect(to)
            slowing.know_again(request, response, user.username)
            return response
    context = {
        "form": form,
        "passkeys": second_step.passkeys_offered(request)
        and WebAuthnCredential.objects.filter(user=user).exists(),
    }
    return render(request, "people/code.html", context, status=status)


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
        asked = request.POST.get("place", "")
        rows = rows.filter(pk=int(asked) if asked.isascii() and asked.isdigit() else 0)
    count = sessions.end(rows)
    messages.success(request, f"Signed out at {count} place{'' if count == 1 else 's'}.")
    return redirect("you")


class ChangePassword(PasswordChangeView):
    template_name = "people/password.html"
    success_url = reverse_lazy("you")

    def form_valid(self, form: Any) -> HttpResponse:
        response = super().form_valid(form)
        update_session_auth_hash(self.request, form.user)
        # the key of this session is a new one: its place is noted again with the next page
        sessions.end_elsewhere(form.user, self.request)
        told.tell(form.user, "password", "changed")
        messages.success(self.request, "The password is changed, everywhere else you are out.")
        return response


class ForgotPassword(PasswordResetView):
    """A link by mail, where there is an address; told the same to whoever asks."""

    template_name = "people/forgot.html"
    email_template_name = "people/mail_password.txt"
    subject_template_name = "people/mail_password_subject.txt"
    success_url = reverse_lazy("sign-in")

    def form_valid(self, form: Any) -> HttpResponse:
        tried, wait = slowing.begin_try(self.request, f"mail {form.cleaned_data['email']}")
        if tried is None:
            words = waiting_words(wait.total_seconds())
            form.add_error("email", f"Too many links were asked for. Wait {words}.")
            return self.render_to_response(self.get_context_data(form=form), status=429)
        messages.info(
            self.request,
            "If somebody here has that address, a link to a new password is on its way to it.",
        )
        return super().form_valid(form)


class NewPassword(PasswordResetConfirmView):
    template_name = "people/new_password.html"
    success_url = reverse_lazy("sign-in")

    def form_valid(self, form: Any) -> HttpResponse:
        response = super().form_valid(form)
        sessions.end(form.user.signed_in.all())
        told.tell(form.user, "password", "set anew by a link")
        messages.success(self.request, "The new password holds. Sign in with it.")
        return response


def set_up(request: SignedInRequest) -> HttpResponse:
    """The second step set up: the key for the phone, a code that shows that it took, and then the
    codes on paper. Who has one sees what there is of it."""
    user = request.user
    passkeys = second_step.passkeys_offered(request)
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
            told.tell(user, "second step", "set up")
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
    tried, wait = slowing.begin_try(request, user.username)
    if tried is None:
        messages.error(request, f"Wait {waiting_words(wait.total_seconds())}.")
    elif not user.check_password(request.POST.get("password", "")):
        messages.error(request, "That is not your password: nothing was changed.")
    else:
        tried.delete()
        if "codes" in request.POST:
            told.tell(user, "codes on paper", "made anew")
            return render(request, "people/codes.html", {"codes": second_step.new_codes(user)})
        second_step.take_off(user)
        told.tell(user, "second step", "taken off")
        messages.success(request, "You sign in with the password alone now.")
        return redirect("you")
    return redirect(reverse("second-step"))
