"""The practice's mark: looked at, chosen, taken away."""

from __future__ import annotations

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import redirect, render

from paper.forms import MarkForm
from paper.marks import NoMark, keep_mark, mark_of
from practice.models import Mark
from practice.requests import SignedInRequest


def mark(request: SignedInRequest) -> HttpResponse:
    if request.method == "POST" and "remove" in request.POST:
        Mark.objects.filter(practice=request.practice).delete()
        messages.success(request, "The papers have the practice's name alone now.")
        return redirect("paper:mark")
    posted = request.method == "POST"
    form = MarkForm(request.POST if posted else None, request.FILES if posted else None)
    if posted and form.is_valid():
        file = form.cleaned_data["file"]
        try:
            keep_mark(request.practice, file, file.size)
        except NoMark as error:
            form.add_error("file", str(error))
        else:
            messages.success(request, "The mark stands on every paper now.")
            return redirect("paper:mark")
    context = {"form": form, "mark": mark_of(request.practice)}
    return render(request, "paper/mark.html", context, status=400 if posted else 200)
