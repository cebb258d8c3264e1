"""A password changed, forgotten, and set anew by a link."""

from __future__ import annotations

from typing import Any

from django.contrib import messages
from django.contrib.auth import update_session_auth_hash
from django.contrib.auth.views import (
    PasswordChangeView,
    PasswordResetConfirmView,
    PasswordResetView,
)
from django.http import HttpResponse
from django.urls import reverse_lazy

from people import sessions, slowing
from people.sign_in_record import tell


class ChangePassword(PasswordChangeView):
    template_name = "people/password.html"
    success_url = reverse_lazy("you")

    def form_valid(self, form: Any) -> HttpResponse:
        response = super().form_valid(form)
        update_session_auth_hash(self.request, form.user)
        # the key of this session is a new one: its place is noted again with the next page
        sessions.end_elsewhere(form.user, self.request)
        tell(form.user, "password", "changed")
        messages.success(self.request, "The password is changed, everywhere else you are out.")
        return response


class ForgotPassword(PasswordResetView):
    """A link by mail, where there is an address; told the same to whoever asks."""

    template_name = "people/forgot.html"
    email_template_name = "people/mail_password.txt"
    subject_template_name = "people/mail_password_subject.txt"
    success_url = reverse_lazy("sign-in")

    def form_valid(self, form: Any) -> HttpResponse:
        # each is counted, a good one too
        tried, wait = slowing.begin_try(self.request, f"mail {form.cleaned_data['email']}")
        if tried is None:
            words = slowing.waiting_words(wait)
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
        tell(form.user, "password", "set anew by a link")
        messages.success(self.request, "The new password holds. Sign in with it.")
        return response
