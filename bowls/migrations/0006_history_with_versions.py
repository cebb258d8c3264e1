"""What was kept for undo says of which version it is and whose change followed; of older ones nobody is known."""

from django.db import migrations

# What it changes of what somebody chose.
SAID = ""


def with_versions(apps, schema_editor):
    Bowl = apps.get_model("bowls", "Bowl")
    for bowl in Bowl.objects.exclude(history=[]):
        count = len(bowl.history)
        history = [
            kept
            if isinstance(kept, dict)
            else {"version": max(bowl.version - count + at, 1), "by": 0, "who": "", "at": bowl.updated.isoformat(), "rows": kept}
            for at, kept in enumerate(bowl.history)
        ]
        Bowl.objects.filter(pk=bowl.pk).update(history=history)


class Migration(migrations.Migration):
    dependencies = [("bowls", "0005_removal")]
    operations = [migrations.RunPython(with_versions, migrations.RunPython.noop)]
