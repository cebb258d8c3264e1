"""The practice's own settings."""

from django.urls import path

from practice import views

urlpatterns = [path("practice/", views.settings, name="practice")]
