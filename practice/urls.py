"""Signing in and out."""

from django.contrib.auth.decorators import login_not_required
from django.contrib.auth.views import LoginView, LogoutView
from django.urls import path
from django.utils.decorators import method_decorator

from practice import views
from practice.forms import SignInForm

urlpatterns = [
    path("practice/", views.settings, name="practice"),
    path("you/", views.you, name="you"),
    path(
        "sign-in/",
        method_decorator(login_not_required, name="dispatch")(LoginView).as_view(
            template_name="practice/sign_in.html",
            authentication_form=SignInForm,
            redirect_authenticated_user=True,
        ),
        name="sign-in",
    ),
    path("sign-out/", LogoutView.as_view(), name="sign-out"),
]
