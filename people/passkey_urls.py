"""Addresses of the passkeys: django-otp-webauthn's views, where the site has a name of its own."""

from collections.abc import Callable
from typing import Any

from django.contrib.auth.decorators import login_not_required
from django.http import Http404, HttpRequest, HttpResponse
from django.urls import path
from django.views.i18n import JavaScriptCatalog
from django_otp_webauthn import views

from people.recent import asked_first
from people.second_step import passkeys_offered

app_name = "otp_webauthn"


def _where_offered(view: Callable[..., Any]) -> Callable[..., Any]:
    def shown(request: HttpRequest, *args: Any, **kwargs: Any) -> HttpResponse:
        if not passkeys_offered():
            raise Http404("no passkeys here")
        return view(request, *args, **kwargs)

    return shown


_begin_registration = asked_first(_where_offered(views.BeginCredentialRegistrationView.as_view()))
_complete_registration = asked_first(
    _where_offered(views.CompleteCredentialRegistrationView.as_view())
)
_begin = login_not_required(_where_offered(views.BeginCredentialAuthenticationView.as_view()))
_complete = login_not_required(_where_offered(views.CompleteCredentialAuthenticationView.as_view()))
_words = login_not_required(JavaScriptCatalog.as_view(packages=["django_otp_webauthn"]))

urlpatterns = [
    path("registration/begin/", _begin_registration, name="credential-registration-begin"),
    path("registration/complete/", _complete_registration, name="credential-registration-complete"),
    path("authentication/begin/", _begin, name="credential-authentication-begin"),
    path("authentication/complete/", _complete, name="credential-authentication-complete"),
    path("words.js", _words, name="js-i18n-catalog"),
]
