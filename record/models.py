"""The entries of the record, each with the hash of the one before, and the keys that their contents
lie under."""

from __future__ import annotations

from typing import Any, NoReturn

from django.db import models

READ, CHANGED, EXPORTED = "read", "changed", "exported"
PRINTED, HANDED_OVER, ERASED = "printed", "handed over", "erased"
SIGNED_IN, TOOK_IN = "signed in", "took in"
ACTS = [
    (act, act)
    for act in (READ, CHANGED, EXPORTED, PRINTED, HANDED_OVER, ERASED, SIGNED_IN, TOOK_IN)
]


class AppendOnly(Exception):
    """An entry that stands is not changed and not taken away."""


class Key(models.Model):
    """The key that what is written of one client lies under; of a practice where it is of no
    client. Who is erased has none any more."""

    practice = models.BigIntegerField()
    # 0 where it is of none
    client = models.BigIntegerField(default=0)
    key = models.CharField(max_length=44)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["practice", "client"], name="one_key_a_client")
        ]


class Entries(models.QuerySet):
    def update(self, **values: Any) -> NoReturn:
        raise AppendOnly("An entry of the record is not changed.")

    def delete(self) -> NoReturn:
        raise AppendOnly("An entry of the record is not taken away.")


class Entry(models.Model):
    """One act. What is hashed stays for good and says nothing of anybody's health: what was done,
    by whom, when, to what by its number. The contents are sealed, and may be gone.

    Numbers and no references: the record goes on when what it is about is gone.
    """

    practice = models.BigIntegerField()
    number = models.PositiveBigIntegerField()
    at = models.DateTimeField()
    who = models.BigIntegerField(null=True)
    act = models.CharField(max_length=12, choices=ACTS)
    # what it was done to, and what that is part of
    kind = models.CharField(max_length=40)
    thing = models.BigIntegerField(null=True)
    of_kind = models.CharField(max_length=40, blank=True)
    of_thing = models.BigIntegerField(null=True)
    client = models.BigIntegerField(null=True)
    # what was done at once, by one click
    deed = models.CharField(max_length=40, blank=True)
    contents = models.BinaryField(null=True)
    digest = models.CharField(max_length=64)
    before = models.CharField(max_length=64)
    hash = models.CharField(max_length=64)

    objects = models.Manager.from_queryset(Entries)()

    class Meta:
        ordering = ["practice", "number"]
        base_manager_name = "objects"
        constraints = [
            models.UniqueConstraint(fields=["practice", "number"], name="one_entry_a_number")
        ]
        indexes = [
            models.Index(fields=["practice", "client", "number"], name="record_of_client"),
            models.Index(fields=["of_kind", "of_thing"], name="record_of_thing"),
            models.Index(fields=["deed"], name="record_deed"),
        ]

    def save(self, *args: Any, **kwargs: Any) -> None:
        if not self._state.adding:
            raise AppendOnly("An entry of the record is not changed.")
        super().save(*args, **kwargs)

    def delete(self, *args: Any, **kwargs: Any) -> NoReturn:
        raise AppendOnly("An entry of the record is not taken away.")
