"""The practice's own settings."""

from django import forms
from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render

from practice.models import Practice


class PracticeForm(forms.ModelForm):
    class Meta:
        model = Practice
        fields = ["name", "town", "contact", "measures"]
        help_texts = {"measures": "Whose cups and spoons recipes are written in. Numbers of recipes and typed amounts follow it."}


def settings(request: HttpRequest) -> HttpResponse:
    form = PracticeForm(request.POST or None, instance=request.user.practice)
    if request.method == "POST" and form.is_valid():
        form.save()
        messages.success(request, "Saved.")
        return redirect("practice")
    return render(request, "practice/settings.html", {"form": form}, status=400 if request.method == "POST" else 200)
