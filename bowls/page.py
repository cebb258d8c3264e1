"""A bowl's page: whom it is for, the meal it is judged as, its parts, its round."""

from typing import Any

from django.contrib import messages
from django.core.paginator import Page
from django.db.models import Q, QuerySet
from django.http import HttpResponse
from django.urls import reverse

from bowls.bowl import Reckoned, reckon_bowl
from bowls.forms import BowlForm
from bowls.models import Bowl, BowlPart
from changes.aims import WHOLE_DAY, meal_of, meal_options
from changes.places import meal_of_bowl
from clients.models import Client
from clients.pages.client_records import OpenRecordPages
from clients.pages.context import PageRequest
from clients.plan.cautions import Holder, of_foods
from clients.plan.in_force import Plan, plan_of
from clients.plan.strip import strip_context
from nutrition.composition.foods import ROLES
from nutrition.insight import indices
from nutrition.insight.summary import tell
from nutrition.targets.meals import MealTarget, usual_meal
from practice.uses import uses_of
from recipes.facts import parts_at_hand
from webkit.drawing.dishes import dish_round
from webkit.listing import Lists

RIM_KEYS = (
    "protein_g",
    "energy_kcal",
    "fiber_g",
    "sodium_mg",
    "potassium_mg",
    "phosphorus_mg",
    "iron_mg",
    "calcium_mg",
    "fat_g",
)

NUMBER_KEYS = ("energy_kcal", "protein_g", "fiber_g", "sodium_mg", "potassium_mg", "phosphorus_mg")

RIM_COOKIE, RIM_DAYS = "rim", 90

BOWL_LISTS = Lists(
    search=("name", "client__name"),
    sorts={
        "name": ("name", ("name", "pk")),
        "new": ("last changed", ("-updated",)),
        "client": ("client", ("client__name", "name")),
    },
    filters={
        "all": ("all", Q(archived=None)),
        "own": ("of one client", Q(client__isnull=False, archived=None)),
        "anybody": ("anybody's", Q(client=None, archived=None)),
        "archived": ("archived", Q(archived__isnull=False)),
    },
)


def client_of(request: PageRequest, bowl: Bowl) -> Client | None:
    """Whom the page is for: the client in its address, who may not be the bowl's own."""
    return request.for_client or bowl.client


def part_addresses(reckoned: Reckoned) -> dict[str, str]:
    """Where a change of each part is sent to, by the part's key."""
    return {
        str(part.pk): reverse("bowls:change", args=[reckoned.bowl.pk, part.pk])
        for part in reckoned.parts
    }


# Nobody said yet which meal a bowl is: the page asks, once.
UNSAID_MEAL = "until you say which meal it is"


def judged_meal(
    bowl: Bowl, plan: Plan, client: Client | None, asked: str = ""
) -> tuple[MealTarget | None, str]:
    """Which meal a bowl is judged as, and how that came about: what is asked for, what was chosen
    for it, the meal that it was first put into, or the usual one until somebody says. It does not
    move with what is in the bowl. None for the whole day, and where no day is planned for."""
    if plan.day is None:
        return None, ""
    for key, words in (
        (asked, ""),
        (bowl.meal, ""),
        (meal_of_bowl(bowl, client), "As it stands in a day."),
    ):
        if key == WHOLE_DAY or meal_of(plan.day, key) is not None:
            return meal_of(plan.day, key), words
    return usual_meal(plan.day.meals), UNSAID_MEAL


def holders(reckoned: Reckoned) -> list[Holder]:
    """The parts as what a caution may be about."""
    to = part_addresses(reckoned)
    return [
        Holder(
            key=str(part.pk),
            name=part.name,
            foods=frozenset(one.food.name for one in part.foods),
            change_url=to[str(part.pk)],
            dish=part.row.recipe_id is not None,
        )
        for part in reckoned.parts
    ]


class BowlPages(OpenRecordPages[Bowl]):
    """The list of bowls, and a bowl's page with its round."""

    app, noun, model, new_form = "bowls", "bowl", Bowl, BowlForm

    def lists(self) -> Lists:
        return BOWL_LISTS

    def rows(self, request: PageRequest) -> QuerySet[Bowl]:
        return super().rows(request).select_related("practice").prefetch_related("parts__recipe")

    def list_context(self, request: PageRequest, page: Page) -> dict[str, Any]:
        with parts_at_hand():
            all_reckoned = [reckon_bowl(bowl) for bowl in page.object_list]
        page.object_list = [
            {
                "bowl": reckoned.bowl,
                "reckoned": reckoned,
                "round": dish_round(reckoned.dish, "protein_g", reckoned.bowl.vessel_ml),
                "density": indices.kcal_per_gram(reckoned.profile),
            }
            for reckoned in all_reckoned
        ]
        return {}

    def make(self, request: PageRequest, form: BowlForm) -> Bowl:
        """A bowl for the client in the address, or for nobody."""
        bowl: Bowl = form.save(commit=False)
        bowl.practice, bowl.client = request.practice, request.for_client
        bowl.save()
        return bowl

    def settings_form(self, bowl: Bowl, data: Any = None) -> BowlForm:
        return BowlForm(data, instance=bowl)

    def copied(self, request: PageRequest, bowl: Bowl) -> Bowl:
        """The same bowl for the client in the address, theirs to change."""
        parts, client = list(bowl.parts.all()), request.for_client
        name = bowl.name if client is None else f"{bowl.name}, {client.name}"
        made: Bowl = Bowl.objects.create(
            practice=bowl.practice, name=name[:120], client=client, vessel_ml=bowl.vessel_ml
        )
        for part in parts:
            part.pk, part.bowl = None, made
        BowlPart.objects.bulk_create(parts)
        whose = f"for {client.name}" if client else "for nobody"
        messages.success(request, f"Copied: this one is {whose}.")
        return made

    def shown(self, request: PageRequest, bowl: Bowl, /, **about: Any) -> HttpResponse:
        response = super().shown(request, bowl, **about)
        asked = request.GET.get("rim")
        if asked in RIM_KEYS:
            response.set_cookie(
                RIM_COOKIE, asked, max_age=RIM_DAYS * 86_400, httponly=True, samesite="Lax"
            )
        return response

    def context(
        self,
        request: PageRequest,
        bowl: Bowl,
        /,
        errors: dict[int, tuple[str, str]] | None = None,
        more: bool = False,
        **_about: Any,
    ) -> dict[str, Any]:
        # Whole: all that the page shows, a name a line.
        reckoned = reckon_bowl(bowl)
        asked = (
            request.POST.get("rim") or request.GET.get("rim") or request.COOKIES.get(RIM_COOKIE, "")
        )
        rim = asked if asked in RIM_KEYS else "protein_g"
        client = client_of(request, bowl)
        plan = plan_of(client)
        school = plan.school
        meal, meal_words = judged_meal(bowl, plan, client)
        told = of_foods(plan, reckoned.ingredients, lines=reckoned.unread).held_by(
            holders(reckoned)
        )
        rows = []
        for part in reckoned.parts:
            typed, error = (errors or {}).get(part.pk, ("", ""))
            rows.append(
                {
                    "part": part,
                    "share": reckoned.share(part, rim),
                    "own": part.profile[rim],
                    "typed": typed,
                    "error": error,
                }
            )
        return {
            "bowl": bowl,
            "reckoned": reckoned,
            "rows": rows,
            "round": dish_round(reckoned.dish, rim, bowl.vessel_ml, part_addresses(reckoned)),
            "rim": rim,
            "rim_keys": RIM_KEYS,
            "number_keys": NUMBER_KEYS,
            "roles": ROLES,
            "indices": indices.all_indices(reckoned.profile),
            # what stands below the first screen is asked for by itself, a moment after a change
            "tells": None
            if request.htmx and not more
            else tell(reckoned.profile, reckoned.ingredients, school),
            "school": school,
            "told": told,
            "replace_url": reverse("bowls:swap", args=[bowl.pk]),
            "without_url": reverse("bowls:without", args=[bowl.pk]),
            "version": bowl.version,
            "meal_options": meal_options(plan.day) if plan.day else [],
            "judged": meal.key if meal else WHOLE_DAY,
            "meal_words": meal_words,
            "asks_meal": meal_words == UNSAID_MEAL,
            "missing_roles": [
                role for role in ROLES if role not in {part.row.role for part in reckoned.parts}
            ],
            "client": client,
            "somebody_elses": bowl.client
            if client and bowl.client and bowl.client.pk != client.pk
            else None,
            "clients": [] if client else Client.objects.all(),
            "last_change": bowl.last_change,
            "uses": uses_of(bowl) if not request.htmx else [],
            "here": reverse("bowls:page", args=[bowl.pk]),
            "settings_form": None if request.htmx else BowlForm(instance=bowl),
        } | strip_context(
            request, plan, reckoned.profile, client, "This bowl", meal, f"bowl-{bowl.pk}"
        )


PAGES = BowlPages()
