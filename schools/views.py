"""The schools side by side, one school line by line, and a practice's own copies."""

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST

from nutrition.food_classes import food_classes
from nutrition.nutrients import NUTRIENT
from nutrition.schools import USUAL_LOSS, school_data, schools
from nutrition.shifts import PER, STANCES
from practice.versioned import StaleSave
from schools.chosen import school_named
from schools.editing import from_post, problems, rows_of
from schools.models import OwnSchool

PACE_COLUMNS = (
    ("lose", "Losing [kg a week]"),
    ("near_kg", "Near the target: within [kg]"),
    ("near", "Losing, near the target [kg a week]"),
    ("gain", "Gaining [kg a week]"),
    ("muscle", "Building muscle [kg a week]"),
    ("reason", "Why this pace"),
    ("source", "Source of the pace"),
)


def school_list(request: HttpRequest) -> HttpResponse:
    every = list(schools().values())
    points = [(point, [school.stands[point] for school in every]) for point in every[0].stands]
    context = {"schools": every, "points": points, "own": OwnSchool.objects.select_related("by"), "usual": USUAL_LOSS}
    return render(request, "schools/list.html", context)


def page(request: HttpRequest, code: str) -> HttpResponse:
    school = school_named(code)
    if school is None:
        raise Http404("no such school")
    own = OwnSchool.objects.filter(pk=code.partition(":")[2]).first() if ":" in code else None
    return render(request, "schools/page.html", {"school": school, "own": own, "usual": USUAL_LOSS})


@require_POST
def copy(request: HttpRequest, code: str) -> HttpResponse:
    """A copy to change: of a built-in school, or of a copy."""
    source = OwnSchool.objects.filter(pk=code.partition(":")[2]).first() if ":" in code else None
    base = source.base if source else code
    if base not in school_data():
        raise Http404("no such school")
    data = dict(source.data if source else school_data()[base])
    data["name"] = f"{data['name']}, our way"[:80]
    own = OwnSchool.objects.create(practice=request.user.practice, base=base, name=data["name"], data=data, by=request.user)
    messages.success(request, f"{own.name} is yours to change. The school it was copied from stays as it is.")
    return redirect("schools:edit", own.pk)


def edit(request: HttpRequest, pk: int) -> HttpResponse:
    own = get_object_or_404(OwnSchool, pk=pk)
    data, wrong, stale, version = own.data, {}, None, own.version
    if request.method == "POST":
        data = from_post(request.POST, own.data)
        wrong = problems(own.code, data)
        if not wrong:
            own.data, own.name = data, data["name"][:80]
            try:
                own.save_over(int(request.POST.get("version", "0") or 0))
                messages.success(request, "Saved. Clients of this school keep their targets until you make new ones for them.")
                return redirect("schools:page", own.code)
            except StaleSave as error:
                stale, version = error.current, error.current.version
    context = {
        "own": own,
        "version": version,
        "data": data,
        "rows": rows_of(data),
        "wrong": wrong,
        "stale": stale,
        "nutrients": NUTRIENT.values(),
        "per": PER,
        "stances": STANCES,
        "classes": list(food_classes()),
        "pace_columns": PACE_COLUMNS,
        "starch_order": ", ".join(data["starch_order"]),
    }
    return render(request, "schools/edit.html", context, status=409 if stale else 400 if wrong else 200)
