"""A wrong or thin row is overruled by the practice, with a reason; the table's value comes back
when that is ended."""

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect
from django.views.decorators.http import require_POST

from clients.pages.context import PageRequest
from pantry import keeping
from pantry.models import Overrule


@require_POST
def end(request: PageRequest, pk: int) -> HttpResponse:
    row = get_object_or_404(Overrule, pk=pk, ended=None)
    keeping.end(row, request.user)
    messages.success(request, "The table's value holds again.")
    return redirect("pantry:food", row.food)
