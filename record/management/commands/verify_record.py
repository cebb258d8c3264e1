"""bin/manage verify_record: whether the record is as it was written."""

from __future__ import annotations

from django.core.management.base import BaseCommand, CommandError

from record import chain, heads, reads


class Command(BaseCommand):
    help = (
        "Check the chain of every practice's record: that no entry was changed, put in, or taken "
        "out, also against what was noted at earlier checks and backups."
    )

    def handle(self, *args: object, **options: object) -> None:
        reads.fold()
        found = heads.faults()
        for practice, wrong in found.items():
            number, _hash = chain.head(practice)
            for said in wrong or [f"{number} entries, the chain holds"]:
                self.stdout.write(f"practice {practice}: {said}")
        if any(found.values()):
            raise CommandError("The record is not as it was written.")
        heads.note()
