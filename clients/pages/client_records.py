"""The pages of a record that is one client's alone, or may be."""

from __future__ import annotations

from typing import Any, ClassVar, TypeVar

from django.db.models import Q, QuerySet
from django.http import HttpResponse
from django.shortcuts import redirect
from django.utils.decorators import method_decorator
from django.views.decorators.http import require_POST

from clients.models import Client
from clients.pages.context import PageRequest, settle_on
from clients.plan.versions import version_on
from practice.record_pages import RecordPages
from practice.removal import offered_back
from practice.versioned import StaleSave
from webkit.listing import Lists, listed

R = TypeVar("R", bound=Any)
# Whose records, where the address names nobody.
WHOSE = Lists(search=("name",), sorts={"name": ("name", ("name",))})


class OpenRecordPages(RecordPages[R]):
    """Of one client or of nobody: not opened for nobody where it is somebody's, but perhaps for
    somebody else."""

    related: ClassVar[tuple[str, ...]] = ("client",)

    def elsewhere(self, request: PageRequest, record: R) -> HttpResponse | None:
        return settle_on(request, record.client) if request.for_client is None else None

    def rows(self, request: PageRequest) -> QuerySet:
        """Everybody's, and those of the client in the address; for nobody, all there are."""
        rows = self.model.objects.select_related("client").filter(client__removed=None)
        if request.for_client is not None:
            rows = rows.filter(Q(client=None) | Q(client=request.for_client))
        return rows


class ClientRecordPages(RecordPages[R]):
    """Opened with its client in the address; planned for the targets of a version (`made_for`)."""

    related: ClassVar[tuple[str, ...]] = ("client",)
    belongs: ClassVar[str]

    def elsewhere(self, request: PageRequest, record: R) -> HttpResponse | None:
        return settle_on(request, record.client)

    def removed(self, request: PageRequest) -> Any:
        rows = self.model.with_removed.filter(client=request.for_client)
        return offered_back(rows) if request.for_client else []

    def whose(self, request: PageRequest) -> dict[str, Any]:
        """For a list that is opened for nobody: the clients to choose from."""
        clients = listed(request, Client.objects.all(), WHOSE) if not request.for_client else None
        return {"whose": clients, "nobody": not Client.objects.exists()}

    def new_refused(self, request: PageRequest) -> str:
        return "" if request.for_client else f"Choose a client first: {self.belongs}."

    def on(self, record: R) -> Any:
        """The date whose targets it is planned for."""
        raise NotImplementedError

    @method_decorator(require_POST)
    def newer_targets(self, request: PageRequest, pk: int) -> HttpResponse:
        """Plan it for the targets that are in force on its date now."""
        record, _elsewhere = self.opened(request, pk)
        record.made_for = version_on(record.client, self.on(record))
        try:
            self.saved_over(request, record)
        except StaleSave as error:
            return self.stale(request, error.current, "the newer targets")
        return redirect(self.address(record))
