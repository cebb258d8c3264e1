from django.db import migrations, models


# What it changes of what somebody chose.
SAID = (
    "For new clients the factors for plants alone (iron x 1.8, zinc x 1.5) are on. Clients who are "
    "there keep what was chosen for them: look at it on the page of the person."
)


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
    ]
