"""Records that can be taken away and brought back: nothing that is kept is lost, and what depends
on one goes on."""

from datetime import timedelta

from django.db import models
from django.dispatch import Signal
from django.utils import timezone

from practice.models import User
from practice.versioned import Versioned
from record.recorded import Recorded, RecordedManager, every_row_of

# What was taken away is offered again on its list for so long.
OFFERED_BACK = timedelta(days=30)


# A record was taken away, or brought back: `instance` is the record.
put_away_or_back = Signal()


class PresentManager(RecordedManager):
    """Leaves out what was taken away."""

    def get_queryset(self) -> models.QuerySet:
        return super().get_queryset().filter(removed=None)


def offered_back(rows: models.Manager | models.QuerySet) -> models.QuerySet:
    """Of records, those among them that were taken away too, the ones that are offered again."""
    return rows.filter(removed__gte=timezone.now() - OFFERED_BACK)


class Archivable(Recorded):
    """A record that can be put out of the lists and searches and stays usable where it is used."""

    archived = models.DateTimeField(null=True, blank=True, editable=False)

    class Meta:
        abstract = True

    def archive(self, away: bool) -> None:
        """Out of the lists, or back in. What is in it does not change, nor does its version."""
        self.archived = timezone.now() if away else None
        every_row_of(type(self)).filter(pk=self.pk).update(archived=self.archived)


class Removable(Recorded):
    """A record with when and by whom it was taken away. Its own page still opens, and says so."""

    removed = models.DateTimeField(null=True, blank=True, editable=False)
    removed_by = models.ForeignKey(
        User, on_delete=models.PROTECT, null=True, blank=True, editable=False, related_name="+"
    )

    class Meta:
        abstract = True

    def remove(self, by: User) -> None:
        self._set(timezone.now(), by)

    def bring_back(self) -> None:
        self._set(None, None)

    def _set(self, when, by: User | None) -> None:
        self.removed, self.removed_by = when, by
        changed: dict[str, object] = {"removed": when, "removed_by": by}
        if isinstance(self, Versioned):
            # what was opened before is overtaken
            changed["version"] = models.F("version") + 1
        every_row_of(type(self)).filter(pk=self.pk).update(**changed)
        put_away_or_back.send(sender=type(self), instance=self)
