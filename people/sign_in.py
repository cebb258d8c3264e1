"""Signing in, with a second step where somebody has one."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Any

from django.contrib import messages
from django.contrib.auth import login
from django.contrib.auth.views import LoginView
from django.core.exceptions import NON_FIELD_ERRORS
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils import timezone
from django.views.decorators.debug import sensitive_post_parameters
from django_otp import login as second_login
from django_otp_webauthn.models import WebAuthnCredential

from people import second_step, slowing
from people.forms import SLOWED, CodeForm, SignInForm
from practice.models import User

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
        status = 429 if form.has_error(NON_FIELD_ERRORS, SLOWED) else 200
        return self.render_to_response(self.get_context_data(form=form), status=status)

    def get_context_data(self, **kwargs: Any) -> dict[str, Any]:
        offered = second_step.passkeys_offered()
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
        try:
            with slowing.one_try(request, user.username):
                device = second_step.matched(user, form.cleaned_data["code"])
        except slowing.TooMany as error:
            form.add_error("code", f"Too many wrong codes. Wait {error}.")
            status = 429
        except second_step.NoMatch:
            form.add_error("code", "That is not the code now, or it was used before.")
        else:
            request.session.pop(HALF, None)
            login(request, user, BACKEND)
            second_login(request, device)
            response = redirect(to)
            slowing.know_again(request, response, user.username)
            return response
    context = {
        "form": form,
        "passkeys": second_step.passkeys_offered()
        and WebAuthnCredential.objects.filter(user=user).exists(),
    }
    return render(request, "people/code.html", context, status=status)
