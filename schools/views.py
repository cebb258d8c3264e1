"""The schools side by side, one school line by line, and a practice's own copies."""

from django.contrib import messages
from django.http import Http404, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST

from nutrition.composition.food_classes import food_classes
from nutrition.composition.nutrients import NUTRIENT
from nutrition.targets.adjustments import PER, STANCES
from nutrition.targets.schools import USUAL_LOSS, school_data, schools
from practice.requests import SignedInRequest
from practice.uses import uses_of
from practice.versioned import StaleSave, version_in
from schools.choices import school_named
from schools.editing import differing, from_post, problems, rows_of
from schools.models import OwnSchool
from webkit.request_values import key_in

PACE_COLUMNS = (
    ("lose", "Losing [kg a week]"),
    ("near_kg", "Near the target: within [kg]"),
    ("near", "Losing, near the target [kg a week]"),
    ("gain", "Gaining [kg a week]"),
    ("muscle", "Building muscle [kg a week]"),
    ("reason", "Why this pace"),
    ("source", "Source of the pace"),
)


def _own(code: str) -> OwnSchool | None:
    """The practice's own copy that a code names; None for a built-in school, or none."""
    key = key_in(code.partition(":")[2]) if ":" in code else None
    own = OwnSchool.objects.filter(pk=key).first() if key is not None else None
    return own if own and own.code == code else None


def school_list(request: SignedInRequest) -> HttpResponse:
    every = list(schools().values())
    points = [(point, [school.stands[point] for school in every]) for point in every[0].stands]
    removed = OwnSchool.with_removed.exclude(removed=None).select_related("removed_by")
    context = {
        "schools": every,
        "points": points,
        "own": OwnSchool.objects.select_related("by"),
        "usual": USUAL_LOSS,
        "removed": removed,
    }
    return render(request, "schools/list.html", context)


def page(request: SignedInRequest, code: str) -> HttpResponse:
    school = school_named(code)
    if school is None:
        raise Http404("no such school")
    own = _own(code)
    return render(request, "schools/page.html", {"school": school, "own": own, "usual": USUAL_LOSS})


@require_POST
def copy(request: SignedInRequest, code: str) -> HttpResponse:
    """A copy to change: of a built-in school, or of a copy."""
    source = _own(code)
    base = source.base if source else code
    if ":" in code and source is None:
        raise Http404("no such school")
    if base not in school_data():
        raise Http404("no such school")
    data = dict(source.data if source else school_data()[base])
    data["name"] = f"{data['name']}, our way"[:80]
    own = OwnSchool.objects.create(
        practice=request.practice, base=base, name=data["name"], data=data, by=request.user
    )
    messages.success(
        request, f"{own.name} is yours to change. The school it was copied from stays as it is."
    )
    return redirect("schools:edit", own.pk)


@require_POST
def remove(request: SignedInRequest, pk: int) -> HttpResponse:
    """Take a copy away; clients of it keep the targets that were made with it. It can be brought
    back."""
    own: OwnSchool = get_object_or_404(OwnSchool.with_removed, pk=pk)
    if "back" in request.POST:
        own.bring_back()
        messages.success(request, f"{own.name} is back.")
    else:
        own.remove(request.user)
        used = uses_of(own)
        messages.info(
            request,
            f"{own.name} is taken away. " + (f"{'; '.join(used)}." if used else "Nobody used it."),
        )
    return redirect("schools:list")


def edit(request: SignedInRequest, pk: int) -> HttpResponse:
    own = get_object_or_404(OwnSchool, pk=pk)
    data, wrong, stale, version = own.data, {}, None, own.version
    if request.method == "POST":
        data = from_post(request.POST, own.data)
        wrong = problems(own.code, data)
        if not wrong:
            own.data, own.name = data, data["name"][:80]
            try:
                own.save_over(version_in(request.POST.get("version")) or 0)
                messages.success(
                    request,
                    "Saved. Clients of this school keep their targets until you make new ones for "
                    "them.",
                )
                return redirect("schools:page", own.code)
            except StaleSave as error:
                stale, version = error.current, error.current.version
    context = {
        "differs": differing(stale.data, data) if stale else [],
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
    return render(
        request, "schools/edit.html", context, status=409 if stale else 400 if wrong else 200
    )
