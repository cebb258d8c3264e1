"""Signing in and out, one's own settings, the people of the practice."""

from django.contrib.auth.decorators import login_not_required
from django.contrib.auth.views import LogoutView
from django.urls import include, path

from people import password_pages, people_views, rest, sign_in, views
from people.recent import asked_first

# what is reached without signing in
_sign_in = login_not_required(sign_in.SignIn.as_view())
_forgot = login_not_required(password_pages.ForgotPassword.as_view())
_new = login_not_required(password_pages.NewPassword.as_view())

urlpatterns = [
    path("sign-in/", _sign_in, name="sign-in"),
    path("sign-in/code/", login_not_required(sign_in.code), name="sign-in-code"),
    path("sign-in/again/", login_not_required(rest.again), name="sign-in-again"),
    path("sign-in/forgot/", _forgot, name="forgot-password"),
    path("sign-in/new/<uidb64>/<token>/", _new, name="new-password"),
    path("sign-in/join/<str:token>/", login_not_required(people_views.join), name="join"),
    path("sign-in/passkey/", include("people.passkey_urls")),
    path("sign-out/", LogoutView.as_view(), name="sign-out"),
    path("you/", views.you, name="you"),
    path("you/password/", password_pages.ChangePassword.as_view(), name="password"),
    path("you/second-step/", asked_first(views.set_up), name="second-step"),
    path("you/second-step/off/", views.second_step_off, name="second-step-off"),
    path("you/places/", views.end_session, name="end-session"),
    path("people/", people_views.people, name="people"),
    path("people/invite/", people_views.invite, name="invite"),
    path("people/rules/", people_views.rules, name="sign-in-rules"),
    path("people/invited/<int:pk>/", people_views.withdraw, name="withdraw"),
    path("people/<int:pk>/", people_views.change, name="person"),
]
