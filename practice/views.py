"""The practice's own settings, and the pages for what is refused or went wrong."""

from typing import Any
from zoneinfo import available_timezones

from django import forms
from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import redirect, render

from practice.forms import field_of
from practice.middleware import by_script
from practice.models import Practice, User
from practice.requests import SignedInRequest
from practice.versioned import StaleSave, version_in


class PracticeForm(forms.ModelForm):
    class Meta:
        model = Practice
        fields = ["name", "town", "contact", "measures", "time_zone"]
        help_texts = {
            "measures": "Whose cups and spoons new recipes and typed amounts are in. Recipes "
            "already written keep theirs; each can be "
            "changed on its own page."
        }

    # which zones there are is a matter of the machine, and of no stored record
    time_zone = forms.ChoiceField(
        required=False,
        help_text="Its dates are the practice's dates: today, weigh-ins, days, handouts.",
    )

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        field_of(self, "time_zone").choices = [
            (name, name.replace("_", " ")) for name in sorted(available_timezones())
        ]

    def clean_time_zone(self) -> str:
        return self.cleaned_data["time_zone"] or self.instance.time_zone


class YouForm(forms.ModelForm):
    class Meta:
        model = User
        fields = ["first_name", "last_name", "letter_keys"]
        help_texts = {
            "letter_keys": "B for Balance, S for Swaps, G and a letter for a page, U for Undo, / "
            "for Find. Turn them off where letters are typed or spoken by other means: everything "
            "has a button as well."
        }


def you(request: SignedInRequest) -> HttpResponse:
    """What is one person's own: their name, and whether letters are commands."""
    form = YouForm(request.POST or None, instance=request.user)
    if request.method == "POST" and form.is_valid():
        form.save()
        messages.success(request, "Saved.")
        return redirect("you")
    status = 400 if request.method == "POST" else 200
    return render(request, "practice/you.html", {"form": form}, status=status)


def settings(request: SignedInRequest) -> HttpResponse:
    practice = Practice.objects.get(pk=request.user.practice_id)  # type: ignore[misc]
    form = PracticeForm(request.POST or None, instance=practice)
    version, stale = practice.version, None
    if request.method == "POST" and form.is_valid():
        asked = version_in(request.POST.get("version"))
        try:
            form.instance.save_over(practice.version if asked is None else asked)
            messages.success(request, "Saved.")
            return redirect("practice")
        except StaleSave as error:
            stale, version = error.current, error.current.version
    changed = [
        (form.fields[name].label, getattr(stale, name), form.cleaned_data[name])
        for name in (form.fields if stale else ())
    ]
    context = {
        "form": form,
        "version": version,
        "stale": [row for row in changed if row[1] != row[2]],
    }
    return render(
        request,
        "practice/settings.html",
        context,
        status=409 if stale else 400 if request.method == "POST" else 200,
    )


def _page(request: SignedInRequest, status: int, title: str, text: str) -> HttpResponse:
    if by_script(request):
        return HttpResponse(text, status=status, content_type="text/plain")
    return render(request, "practice/wrong.html", {"title": title, "text": text}, status=status)


def form_refused(request: SignedInRequest, reason: str = "") -> HttpResponse:
    """A form whose token no longer holds: mostly after signing in anew elsewhere."""
    text = (
        "The page was opened before you last signed in. Nothing was saved. Go back, load "
        "the page again, and send it once more."
    )
    return _page(request, 403, "Not saved", text)


def forbidden(request: SignedInRequest, exception: Exception | None = None) -> HttpResponse:
    return _page(request, 403, "Not for you", str(exception) or "This is not yours to see.")


def not_found(request: SignedInRequest, exception: Exception | None = None) -> HttpResponse:
    text = (
        "There is nothing at this address, or it is not this practice's. What was taken away can "
        "be brought back from its list for thirty days."
    )
    return _page(request, 404, "Not there", text)


def failed(request: SignedInRequest) -> HttpResponse:
    text = (
        "Something went wrong here, and nothing was saved. Go back: what you typed is "
        "mostly still in the form."
    )
    return _page(request, 500, "That did not work", text)
