"""The pages of a record that is kept: listed, begun, opened, changed in place, set, copied,
archived, removed and brought back. One shell for all kinds; a kind says what its own are."""

from __future__ import annotations

from typing import Any, ClassVar, Generic, TypeVar

from django import forms
from django.contrib import messages
from django.db.models import QuerySet
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.utils.decorators import method_decorator
from django.views.decorators.http import require_POST

from practice.removal import Archivable, Removable, offered_back
from practice.undo import Undoable, asked_by
from practice.versioned import StaleSave, version_in
from webkit.listing import Lists, listed

# A record that can be put away and brought back; what else a page asks of it, its kind has.
R = TypeVar("R", bound=Any)
posted = method_decorator(require_POST)


class RecordPages(Generic[R]):
    """What every kind of record has in common. `app` names its addresses and templates, `noun` is
    what a person calls it. A kind says only what the steps need that its addresses lead to."""

    app: ClassVar[str]
    noun: ClassVar[str]
    model: ClassVar[type[Any]]
    # fetched with each record
    related: ClassVar[tuple[str, ...]]
    # what its list and its page are called among the addresses
    list_name: ClassVar[str] = "list"
    page_name: ClassVar[str] = "page"
    # the form that begins one from its list; None where it is begun elsewhere
    new_form: ClassVar[type[Any] | None] = None

    # what a kind says of itself

    def named(self, record: R) -> str:
        """What a message calls a record."""
        return str(record)

    def elsewhere(self, request: Any, record: R) -> HttpResponse | None:
        """Where to go instead of to its page; None to stay."""
        return None

    def context(self, request: Any, record: R, /, **about: Any) -> dict[str, Any]:
        """What its page needs; `about` is what a page tells of a change, and `errors` what was
        refused."""
        raise NotImplementedError

    def lists(self) -> Lists:
        """What its list can be asked for today."""
        raise NotImplementedError

    def rows(self, request: Any) -> QuerySet:
        """The records that its list holds."""
        raise NotImplementedError

    def list_context(self, request: Any, page: Any) -> dict[str, Any]:
        """What its list needs of a page of rows."""
        raise NotImplementedError

    def removed(self, request: Any) -> QuerySet | list:
        """Those that were removed and may be brought back."""
        return offered_back(self.model.with_removed).select_related("removed_by")

    def first_form(self) -> forms.BaseForm | None:
        """The form that begins one, before anything is typed."""
        return self.new_form() if self.new_form else None

    def make(self, request: Any, form: Any) -> R:
        """A record of what was typed."""
        raise NotImplementedError

    def settings_form(self, record: R, data: Any = None) -> Any:
        """The form of what stands around it, with what was sent if something was."""
        raise NotImplementedError

    def set(self, record: R, form: Any) -> None:
        """Put what the form holds on the record; what cannot be is an error of the form."""

    def copied(self, request: Any, record: R) -> R | None:
        """Another like it, and a message; None where that cannot be, which the message says."""
        raise NotImplementedError

    def back_refused(self, record: R) -> str:
        """Why it cannot be brought back, in words; empty where it can."""
        return ""

    # what is the same for all

    def stored(self, pk: int) -> R:
        """The record as it is stored now. Raises Http404."""
        return get_object_or_404(self.model.with_removed.select_related(*self.related), pk=pk)

    def opened(self, request: Any, pk: int) -> tuple[R, HttpResponse | None]:
        """The record, and where to go instead if not to its page."""
        record = self.stored(pk)
        record.practice = request.practice
        return record, self.elsewhere(request, record)

    def address(self, record: R) -> str:
        return reverse(f"{self.app}:{self.page_name}", args=[record.pk])

    @property
    def list_address(self) -> str:
        return reverse(f"{self.app}:{self.list_name}")

    def listed(self, request: Any, form: forms.BaseForm | None, status: int = 200) -> HttpResponse:
        asked = listed(request, self.rows(request), self.lists())
        context = {
            "list": asked,
            "rows": asked.page,
            "form": form,
            "removed": self.removed(request),
        }
        context |= self.list_context(request, asked.page)
        return render(request, f"{self.app}/list.html", context, status=status)

    def listing(self, request: Any) -> HttpResponse:
        return self.listed(request, self.first_form())

    @posted
    def new(self, request: Any) -> HttpResponse:
        if refused := self.new_refused(request):
            messages.error(request, refused)
            return redirect(self.list_address)
        assert self.new_form is not None
        form = self.new_form(request.POST)
        if not form.is_valid():
            return self.listed(request, form, 400)
        return redirect(self.address(self.make(request, form)))

    def new_refused(self, request: Any) -> str:
        """Why none can be begun here, in words; empty where one can."""
        return ""

    def page(self, request: Any, pk: int) -> HttpResponse:
        record, elsewhere = self.opened(request, pk)
        return elsewhere or self.shown(request, record)

    def shown(self, request: Any, record: R, /, **about: Any) -> HttpResponse:
        """The page, or of it what a live page asks for: what stands below the first screen is asked
        for by itself, a moment after a change."""
        more = bool(request.htmx) and "more" in request.GET
        context = self.context(request, record, **about, **({"more": True} if more else {}))
        name = "page" if not request.htmx else "_more" if more else "_work"
        return render(request, f"{self.app}/{name}.html", context)

    def answer(self, request: Any, record: R, status: int = 200, **about: Any) -> HttpResponse:
        """The working part of the page for a live page; without script back to the page, or the
        page with what was refused on it."""
        refused = bool(about.get("errors"))
        if request.htmx:
            # what is wrong stands beside its field: the page takes the answer in as any other
            context = self.context(request, record, **about)
            shown = status if status == 409 else 200
            return render(request, f"{self.app}/_work.html", context, status=shown)
        if refused or status != 200:
            context = self.context(request, record, **about)
            return render(request, f"{self.app}/page.html", context, status=max(status, 400))
        return redirect(self.after(record, about))

    def after(self, record: R, about: dict[str, Any]) -> str:
        """Where a change without script leads."""
        return self.address(record)

    def stale(self, request: Any, stored: R, what: str, errors: Any = None) -> HttpResponse:
        """A change of a record that somebody changed meanwhile: what they did, what was not done,
        and what is stored now."""
        asked = version_in(request.POST.get("version")) or 0
        who = stored.last_change[0] if stored.last_change else "Somebody else"
        theirs = "; ".join(stored.changed_since(asked)) or "it is shown below as it is stored"
        messages.error(
            request,
            f"{who} changed this {self.noun} after you opened it: {theirs}. Yours was not made: "
            f"{what}. Make it again if it still fits.",
        )
        return self.answer(request, stored, 409, errors=errors)

    def saved_over(self, request: Any, record: R) -> None:
        """Save over the version that the page showed. Raises StaleSave."""
        asked = version_in(request.POST.get("version"))
        record.save_over(record.version if asked is None else asked)

    @posted
    def settings(self, request: Any, pk: int) -> HttpResponse:
        """What stands around it, set."""
        record, _elsewhere = self.opened(request, pk)
        form, status, stale = self.settings_form(record, request.POST), 400, None
        if form.is_valid():
            self.set(record, form)
        if not form.errors:
            try:
                self.saved_over(request, record)
                return redirect(self.after_settings(request, record))
            except StaleSave as error:
                status, stale = 409, error.current
                form.add_error(
                    None,
                    f"The {self.noun} was changed meanwhile: what is stored stands above, and "
                    f"yours is still here. Save again to set it.",
                )
        context = self.context(request, stale or self.stored(pk)) | {"settings_form": form}
        return render(request, f"{self.app}/page.html", context, status=status)

    def after_settings(self, request: Any, record: R) -> str:
        return self.address(record)

    @posted
    def copy(self, request: Any, pk: int) -> HttpResponse:
        record, _elsewhere = self.opened(request, pk)
        return redirect(self.address(self.copied(request, record) or record))

    @posted
    def archive(self, request: Any, pk: int) -> HttpResponse:
        """Out of the lists and searches, or back in; it stays where it is used."""
        record, _elsewhere = self.opened(request, pk)
        assert isinstance(record, Archivable)
        record.archive("back" not in request.POST)
        where = "archived" if record.archived else "in the lists"
        messages.success(request, f"{self.named(record)} is {where}.")
        return redirect(self.address(record))

    @posted
    def remove(self, request: Any, pk: int) -> HttpResponse:
        """Taken away, or brought back; what it is in keeps it."""
        record, _elsewhere = self.opened(request, pk)
        if "back" not in request.POST:
            return redirect(self.put_away(request, record))
        if refused := self.back_refused(record):
            messages.error(request, refused)
            return redirect(self.list_address)
        self.bring_back(record)
        messages.success(request, f"{self.named(record)} is back.")
        return redirect(self.address(record))

    def put_away(self, request: Any, record: R) -> str:
        """Remove it: where to go then, with a message if that alone does not say it."""
        assert isinstance(record, Removable)
        record.remove(request.user)
        return f"{self.list_address}?removed={record.pk}"

    def bring_back(self, record: R) -> None:
        assert isinstance(record, Removable)
        record.bring_back()

    @posted
    def undo(self, request: Any, pk: int) -> HttpResponse:
        """The last change taken back."""
        record, _elsewhere = self.opened(request, pk)
        assert isinstance(record, Undoable)
        version, _by, page = asked_by(request)
        try:
            whose = record.step_back(version, page)
        except StaleSave as error:
            return self.stale(request, error.current, "the step back")
        if whose and whose != request.user.shown_name:
            messages.info(request, f"Undone: what {whose} changed.")
        return self.answer(request, self.stored(pk), **self.undone(record))

    def undone(self, record: R) -> dict[str, Any]:
        """What a page tells of a step back."""
        return {}
