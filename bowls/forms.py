"""The forms of a bowl and of the sauce bench."""

from django import forms

from bowls.models import Bowl
from nutrition.composition.foods import Food
from nutrition.composition.nutrients import NUTRIENT
from practice.forms import field_of


class BowlForm(forms.ModelForm):
    class Meta:
        model = Bowl
        fields = ["name", "vessel_ml"]


# What a bowl's sauce may be kept to: whatever has a most.
LIMITED = (
    *("energy_kcal", "fat_g", "saturated_fat_g", "sodium_mg", "sugars_g", "added_sugars_g"),
    *("carbohydrate_g", "protein_g", "potassium_mg", "phosphorus_mg", "vitamin_k_ug", "iodine_ug"),
)


class BenchForm(forms.Form):
    volume_ml = forms.FloatField(label="The batch is [mL]", min_value=10, max_value=50_000)
    bowls = forms.IntegerField(label="Bowls to cover", min_value=1, max_value=200)
    per_bowl_ml = forms.FloatField(label="Sauce on each [mL]", min_value=5, max_value=500)
    thinner = forms.ChoiceField(label="Thinned with")
    density = forms.FloatField(
        label="To a density of [kcal/g]", min_value=0.05, max_value=9, required=False
    )
    key = forms.ChoiceField(
        label="A bowl's sauce keeps to",
        choices=[(key, NUTRIENT[key].name.lower()) for key in LIMITED],
    )
    most = forms.FloatField(label="At most", min_value=0, max_value=5000, required=False)

    def __init__(self, *args, thinners: list[Food], **kwargs):
        super().__init__(*args, **kwargs)
        field_of(self, "thinner").choices = [(food.slug, food.name.lower()) for food in thinners]
