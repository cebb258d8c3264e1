"""What is typed of a session of cooking and of a stove."""

from __future__ import annotations

from datetime import time, timedelta
from typing import Any

from django import forms
from django.utils import timezone

from clients.models import Client
from kitchen.dishes import MOST_SERVINGS
from kitchen.models import Box, PotMeasure, Stove
from nutrition.prep.keeping import endangered, keeping_of
from nutrition.prep.steps.corrections import MOST_ALONE, MOST_HANDS, Correction
from nutrition.prep.steps.heat import LEAST_C, MOST_C
from nutrition.prep.steps.task import Task
from nutrition.prep.steps.work_kinds import PLACES as WORK_PLACES
from recipes.facts import facts_of
from recipes.models import Recipe
from recipes.ownership import open_to
from shopping.models import MOST_G

DAYS_BACK, DAYS_AHEAD = timedelta(days=60), timedelta(days=366)
# A session is no longer than this. [min]
LONGEST = 18 * 60


def minutes_in(value: time) -> int:
    """A time of day in minutes. [min]"""
    return value.hour * 60 + value.minute


def time_of(minutes: int) -> time:
    """A time of day of so many minutes. [min]"""
    return time(minutes // 60 % 24, minutes % 60)


def _time() -> forms.TimeInput:
    return forms.TimeInput(attrs={"type": "time"}, format="%H:%M")


class SessionForm(forms.Form):
    """On which day, ready at what time, begun when at the earliest. [min]"""

    day = forms.DateField(
        label="On", widget=forms.DateInput(attrs={"type": "date"}, format="%Y-%m-%d")
    )
    ready_at = forms.TimeField(label="Ready at", widget=_time())
    earliest = forms.TimeField(label="Begin no earlier than", widget=_time())

    def clean_day(self) -> Any:
        day, today = self.cleaned_data["day"], timezone.localdate()
        if not today - DAYS_BACK <= day <= today + DAYS_AHEAD:
            raise forms.ValidationError("A day within the last two months or the next year.")
        return day

    def clean(self) -> dict[str, Any]:
        data = super().clean() or {}
        ready, earliest = data.get("ready_at"), data.get("earliest")
        if ready is None or earliest is None:
            return data
        data["ready_minutes"], data["earliest_minutes"] = minutes_in(ready), minutes_in(earliest)
        if data["earliest_minutes"] >= data["ready_minutes"]:
            # who eats at one in the night began the evening before
            data["earliest_minutes"] -= 24 * 60
        if data["ready_minutes"] - data["earliest_minutes"] > LONGEST:
            self.add_error("earliest", "The work begins before it is ready, within 18 hours.")
        return data


class StoveForm(forms.ModelForm):
    class Meta:
        model = Stove
        fields = ["cooks", "burners", "ovens", "shelves", "blenders"]


PLACES = [("", "as read"), *((place, place) for place in WORK_PLACES)]
ORDER = [("", "as read"), ("apart", "begins by itself"), ("after", "after what stands before it")]


class StepForm(forms.Form):
    """What is right of a piece of work; empty as it was read. [min], [degrees Celsius]"""

    hands = forms.FloatField(
        label="By hand [min]", min_value=0, max_value=MOST_HANDS, required=False
    )
    alone = forms.FloatField(label="Alone [min]", min_value=0, max_value=MOST_ALONE, required=False)
    place = forms.ChoiceField(label="Where", choices=PLACES, required=False)
    celsius = forms.IntegerField(
        label="Oven [°C]", min_value=LEAST_C, max_value=MOST_C, required=False
    )
    order = forms.ChoiceField(label="When", choices=ORDER, required=False)
    no_work = forms.BooleanField(label="nothing is done", required=False)

    def __init__(self, *args: Any, words: str = "", **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.words = words

    @classmethod
    def of(cls, words: str, task: Task | None, right: Correction | None, at: int) -> StepForm:
        """The form of a piece as it was put right, the `at`th of its page."""
        initial: dict[str, Any] = {}
        if right is not None:
            order = {True: "apart", False: "after", None: ""}[right.apart]
            initial = {
                "hands": right.hands,
                "alone": right.alone,
                "place": right.place or "",
                "celsius": right.celsius,
                "order": order,
                "no_work": right.no_work,
            }
        form = cls(initial=initial, words=words, auto_id=f"id_{at}_%s")
        if task is not None:
            form.fields["hands"].widget.attrs["placeholder"] = f"{task.hands.usual:.0f}"
            form.fields["alone"].widget.attrs["placeholder"] = f"{task.alone.usual:.0f}"
            if task.heat:
                form.fields["celsius"].widget.attrs["placeholder"] = str(task.heat.celsius)
        return form

    def as_kept(self) -> dict[str, Any]:
        """What is kept of it: only what was set."""
        data = self.cleaned_data
        order = {"apart": True, "after": False}.get(data["order"])
        given = {
            "hands": data["hands"],
            "alone": data["alone"],
            "place": data["place"] or None,
            "celsius": data["celsius"],
            "apart": order,
            "no_work": data["no_work"] or None,
        }
        return {name: value for name, value in given.items() if value is not None}


class PotForm(forms.Form):
    """What a pot weighed [g], its own weight taken off, and how many servings came out."""

    grams = forms.FloatField(label="It weighed [g]", min_value=1, max_value=MOST_G)
    tare = forms.FloatField(
        label="The empty pot [g]", min_value=0, max_value=MOST_G, required=False
    )
    servings = forms.FloatField(
        label="Servings that came out", min_value=0.1, max_value=MOST_SERVINGS, required=False
    )

    @classmethod
    def of(cls, measure: PotMeasure | None) -> PotForm:
        """The form of a pot as it was weighed."""
        if measure is None:
            return cls()
        return cls(initial={"grams": round(measure.grams), "servings": measure.servings})

    def clean(self) -> dict[str, Any]:
        data = super().clean() or {}
        grams = data.get("grams")
        if grams is not None:
            data["net"] = grams - (data.get("tare") or 0.0)
            if data["net"] <= 0:
                self.add_error("tare", "The empty pot weighs less than the full one.")
        return data


class PiecesForm(forms.Form):
    """A mix, how many pieces it is to give, and what the recipe says that one weighs. [g]"""

    mix_g = forms.FloatField(label="The mix weighs [g]", min_value=1, max_value=MOST_G)
    wanted = forms.IntegerField(label="Pieces wanted", min_value=1, max_value=500)
    said_g = forms.FloatField(
        label="The recipe says a piece weighs [g]", min_value=0.5, max_value=MOST_G, required=False
    )


class BoxForm(forms.Form):
    """A container of a dish: how many servings are in it, when it was cooked, where it stands."""

    recipe: Any = forms.ModelChoiceField(Recipe.objects.none(), label="Of")
    servings = forms.FloatField(min_value=0.1, max_value=50)
    count = forms.IntegerField(label="Containers", min_value=1, max_value=30, initial=1)
    cooked = forms.DateField(
        label="Cooked on", widget=forms.DateInput(attrs={"type": "date"}, format="%Y-%m-%d")
    )
    place = forms.ChoiceField(label="Where", choices=Box.PLACES, initial="freezer")

    def __init__(self, *args: Any, client: Client, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.client = client
        field: Any = self.fields["recipe"]
        field.queryset = open_to(client).order_by("title")
        self.fields["cooked"].initial = timezone.localdate()

    def clean_cooked(self) -> Any:
        day = self.cleaned_data["cooked"]
        if day > timezone.localdate() or day < timezone.localdate() - timedelta(days=400):
            raise forms.ValidationError("A day of the last year, today at the latest.")
        return day

    def put_in(self) -> None:
        """The containers, each with its last day by how the dish keeps."""
        data = self.cleaned_data
        recipe = data["recipe"]
        facts = facts_of(recipe)
        keeping = keeping_of(
            recipe.title, recipe.role, facts.foods(), endangered(self.client.person())
        )
        days = keeping.days if data["place"] == "refrigerator" else 30 * keeping.frozen_months
        for _one in range(data["count"]):
            Box.objects.create(
                client=self.client,
                recipe=recipe,
                servings=data["servings"],
                grams=round(facts.serving.grams * data["servings"], 1),
                cooked=data["cooked"],
                place=data["place"],
                use_by=data["cooked"] + timedelta(days=days),
            )

    def clean(self) -> dict[str, Any]:
        data = super().clean() or {}
        recipe = data.get("recipe")
        if recipe is not None and data.get("place") == "freezer":
            keeping = keeping_of(recipe.title, recipe.role, facts_of(recipe).foods())
            if not keeping.freezes:
                self.add_error("place", f"{recipe.title} does not freeze. {keeping.why}")
        return data
