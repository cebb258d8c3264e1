"""The practice's own foods: copied from a label on one screen, listed, compared, retired."""

from django.contrib import messages
from django.db.models import Q
from django.http import Http404, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST

from clients.pages.context import PageRequest
from nutrition.composition.nutrients import NUTRIENT
from nutrition.labels.comparison import BASES, beside
from nutrition.labels.label import BadLabel
from nutrition.labels.rounding import label_values
from pantry import keeping
from pantry.forms import OwnFoodForm, likes_for
from pantry.in_force import made_of
from pantry.label_page import seen, told_of
from pantry.models import COPIED, OwnFood, OwnFoodVersion
from practice.forms import with_version
from practice.record_pages import RecordPages
from practice.uses import uses_of
from practice.versioned import StaleSave
from webkit.listing import Lists, listed
from webkit.request_values import short

# What differs: in words, the one's, the other's.
Difference = tuple[str, object, object]
WORDS = {
    "name": "name",
    "kind": "what the values are of",
    "serving": "household measure",
    "serving_size": "weight of a serving",
    "servings": "servings in the package",
    "ingredients": "ingredients",
    "claims": "claims",
    "like": "what it is most like",
    "like_sure": "whether that was chosen",
    "sure": "looked at again",
}


OWN_LISTS = Lists(
    search=("name",),
    sorts={
        "name": ("name", ("retired", "name", "pk")),
        "new": ("last saved", ("-updated",)),
        "kcal": ("energy, least first", ("made__values__energy_kcal", "name")),
        "protein": ("protein, most first", ("-made__values__protein_g", "name")),
    },
    filters={
        "all": ("all", Q()),
        "use": ("in use", Q(retired=None)),
        "look": ("to look at again", Q(sure=False, retired=None)),
        "retired": ("retired", Q(retired__isnull=False)),
    },
)


class PackagePages(RecordPages[OwnFood]):
    """Packages: listed, retired where they are used, deleted where nothing uses them."""

    app, noun, model = "pantry", "package", OwnFood
    list_name, page_name = "own-list", "own"

    def stored(self, pk: int) -> OwnFood:
        row: OwnFood = get_object_or_404(OwnFood, pk=pk)
        return row

    def lists(self) -> Lists:
        return OWN_LISTS

    def listing(self, request: PageRequest) -> HttpResponse:
        asked = listed(request, OwnFood.objects.select_related("by"), OWN_LISTS)
        for row in asked.page.object_list:
            row.values = row.made.get("values", {})
        return render(request, "pantry/own_list.html", {"rows": asked.page, "list": asked})

    def put_away(self, request: PageRequest, row: OwnFood) -> str:
        if "delete" in request.POST and not uses_of(row):
            keeping.delete(row)
            messages.success(request, f"{row.name} is deleted. Nothing used it.")
            return self.list_address
        keeping.retire(row, request.user)
        messages.success(request, f"{row.name} is retired: where it is used it stays.")
        return self.address(row)

    def back_refused(self, row: OwnFood) -> str:
        there = OwnFood.objects.filter(name__iexact=row.name, retired=None).exists()
        return "Another package has its name by now: rename that one first." if there else ""

    def bring_back(self, row: OwnFood) -> None:
        keeping.retire(row, None)


PAGES = PackagePages()


def _shown(request: PageRequest, form: OwnFoodForm, amount: str) -> dict[str, object]:
    """What stands in the form, as a food; or what is still missing."""
    label = form.label() if form.is_bound else form.instance.label()
    try:
        made = made_of(form.instance.slug, label)
    except BadLabel as error:
        missing = [
            (NUTRIENT[name].name if name in NUTRIENT else WORDS.get(name, name), why)
            for name, why in error.errors.items()
        ]
        return {"missing": missing, "likes": likes_for(label.name) if label.name else []}
    context = seen(made, amount, request.for_client, request.practice.measures)
    asked = form.data.get("like", "") if form.is_bound else ""
    return context | {"likes": likes_for(asked or label.name)}


@require_POST
def look(request: PageRequest) -> HttpResponse:
    """The food that what stands in the form would make, without saving it."""
    form = OwnFoodForm(request.POST)
    context = _shown(request, form, short(request.POST, "amount"))
    return render(request, "pantry/_own_seen.html", context)


def own_page(request: PageRequest, pk: int | None = None) -> HttpResponse:
    row = (
        PAGES.stored(pk) if pk is not None else OwnFood(kind="us", name=short(request.GET, "name"))
    )
    if pk is None:
        row.practice = request.practice
    data = request.POST if request.method == "POST" else None
    form = OwnFoodForm(data, instance=row)
    amount = short(request.POST if data else request.GET, "amount")
    status, stale = 200, []
    if data is not None and "look" not in data:
        if form.is_valid():
            try:
                kept = keeping.store(
                    row, request.user, form.cleaned_data["version"] if pk else None
                )
            except StaleSave as error:
                stale = differing(error.current, row)
                form.data = with_version(form.data, error.current.version)
                status = 409
            else:
                _say_saved(request, row, kept.number)
                return redirect("pantry:own", row.pk)
        else:
            status = 400
    context = {"form": form, "row": row, "stale": stale}
    if row.pk or data is not None:
        context |= _shown(request, form, amount)
    if row.pk:
        context |= {"uses": uses_of(row), "versions": _versions(row)}
    return render(request, "pantry/own.html", context, status=status)


def _say_saved(request: PageRequest, row: OwnFood, number: int) -> None:
    said = "Saved. It is found wherever foods are looked for." if number == 1 else ""
    messages.success(request, said or f"Saved as version {number}. What it was is kept.")
    if row.made.get("group") == "comparator":
        messages.info(
            request, "It holds something from an animal: it is kept to compare with, no more."
        )
    if number > 1:
        for words in uses_of(row):
            messages.info(request, f"Worked out anew with it: {words}.")


def differing(one: OwnFood, other: OwnFood) -> list[Difference]:
    """What differs between two states of a food: in words, the one's, the other's."""
    out = [
        (WORDS[name].capitalize(), getattr(one, name), getattr(other, name))
        for name in COPIED
        if name != "printed" and getattr(one, name) != getattr(other, name)
    ]
    return out + [
        (NUTRIENT[key].name, one.printed.get(key, ""), other.printed.get(key, ""))
        for key in label_values()
        if one.printed.get(key, "") != other.printed.get(key, "")
    ]


def _versions(row: OwnFood) -> list[tuple[OwnFoodVersion, list[Difference]]]:
    """Each version with what changed in it, the newest first."""
    versions = list(row.versions.select_related("by"))
    out = []
    for at, version in enumerate(versions):
        now = OwnFood(**version.copied)
        before = OwnFood(**versions[at + 1].copied) if at + 1 < len(versions) else None
        out.append((version, differing(before, now) if before is not None else []))
    return out


def side_by_side(request: PageRequest) -> HttpResponse:
    """Two packages, row by row."""
    rows = list(OwnFood.objects.order_by("name"))
    chosen = [request.GET.get("one", ""), request.GET.get("other", "")]
    base = request.GET.get("base", "100g")
    if base not in BASES:
        raise Http404("no such base")
    pair = [next((row for row in rows if str(row.pk) == pk), None) for pk in chosen]
    context: dict[str, object] = {
        "foods": rows,
        "chosen": chosen,
        "base": base,
        "bases": [(code, words) for code, (words, _values) in BASES.items()],
    }
    if pair[0] is not None and pair[1] is not None:
        made = [made_of(row.slug, row.label()) for row in pair if row is not None]
        told = [{one.heading: one for one in told_of(one.ingredients)} for one in made]
        headings = dict.fromkeys(heading for one in told for heading in one)
        context |= {
            "pair": pair,
            "seen": [seen(one, "", request.for_client, request.practice.measures) for one in made],
            "rows": [
                (NUTRIENT[row.key], row) for row in beside(made[0].label, made[1].label, base)
            ],
            "told": [(heading, [one.get(heading) for one in told]) for heading in headings],
            "base_words": BASES[base][0],
        }
    return render(request, "pantry/own_beside.html", context)
