from django.db import migrations, models


def shown_by_default(apps, schema_editor):
    """The factors for plants alone were off by default: nobody had switched them off."""
    apps.get_model("clients", "Client").objects.update(vegan_iron=True, vegan_zinc=True)


class Migration(migrations.Migration):
    dependencies = [("clients", "0007_corrections_orders_by_whom")]

    operations = [
        migrations.AddField(
            model_name="client",
            name="weight_before_kg",
            field=models.FloatField(blank=True, null=True, verbose_name="weight before pregnancy [kg]"),
        ),
        migrations.AlterField(
            model_name="client",
            name="vegan_iron",
            field=models.BooleanField(default=True, verbose_name="iron x 1.8 for plants alone"),
        ),
        migrations.AlterField(
            model_name="client",
            name="vegan_zinc",
            field=models.BooleanField(default=True, verbose_name="zinc x 1.5 for plants alone"),
        ),
        migrations.RunPython(shown_by_default, migrations.RunPython.noop),
    ]
