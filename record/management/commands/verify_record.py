"""bin/manage verify_record: whether the record is as it was written."""

from __future__ import annotations

from django.core.management.base import BaseCommand, CommandError

from record import chain, heads, reads
from record.models import Entry


class Command(BaseCommand):
    help = (
        "Check the chain of every practice's record: that no entry was changed, put in, or taken "
        "out, also against what was noted at earlier checks and backups."
    )

    def handle(self, *args: object, **options: object) -> None:
        reads.fold()
        known, found = heads.known(), False
        practices = sorted({*Entry.objects.values_list("practice", flat=True).distinct(), *known})
        for practice in practices:
            number, _hash = chain.head(practice)
            wrong = list(chain.faults(practice, known.get(practice)))
            for said in wrong:
                self.stdout.write(f"practice {practice}: {said}")
            found = found or bool(wrong)
            if not wrong:
                self.stdout.write(f"practice {practice}: {number} entries, the chain holds")
        if found:
            raise CommandError("The record is not as it was written.")
        heads.note()
