"""What was written about conditions stays, as notes; the conditions themselves become a list."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("clients", "0003_life_stage_and_formula")]

    operations = [
        migrations.RenameField(model_name="client", old_name="conditions", new_name="condition_notes"),
        migrations.AlterField(
            model_name="client",
            name="condition_notes",
            field=models.TextField("more about conditions and medicines", blank=True),
        ),
    ]
