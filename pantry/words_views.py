"""The practice's words: what they mean here, settled, listed, taken out and undone."""

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST

from clients.pages.context import PageRequest
from nutrition.composition.foods import food_table
from nutrition.formats.csv_cells import SafeWriter
from nutrition.written.finding import surely_meant
from pantry import keeping
from pantry.models import Word
from webkit.listing import Lists, listed
from webkit.request_values import TooLong, whole

# What a phrase and the name of a food hold. [characters]
MOST_PHRASE = 120


def _with_foods(rows) -> list[tuple[Word, object]]:
    table = food_table()
    return [(word, table.get(word.food)) for word in rows]


WORD_LISTS = Lists(
    search=("phrase", "food"),
    sorts={"phrase": ("words", ("phrase", "pk")), "new": ("newest", ("-made",))},
)


def word_list(request: PageRequest) -> HttpResponse:
    """The words that hold, those undone, and one more if the form was filled in."""
    said = {"phrase": "", "food": "", "error": ""}
    if request.method == "POST":
        said = {name: request.POST.get(name, "").strip() for name in ("phrase", "food")}
        try:
            for name in said:
                whole(request.POST, name, MOST_PHRASE)
            said["error"] = _settled(request, said["phrase"], said["food"])
        except TooLong as error:
            said["error"] = str(error)
        if not said["error"]:
            return redirect("pantry:words")
    words = Word.objects.select_related("by", "undone_by")
    asked = listed(request, words.filter(undone=None), WORD_LISTS)
    context = {
        "list": asked,
        "rows": asked.page,
        "words": _with_foods(asked.page.object_list),
        "undone": _with_foods(words.exclude(undone=None).order_by("-undone")[:20]),
        "said": said,
    }
    return render(request, "pantry/words.html", context, status=400 if said["error"] else 200)


def _settled(request: PageRequest, phrase: str, name: str) -> str:
    """Settle a phrase; what stands against it, in words."""
    table = food_table()
    food = table.usable(name) or surely_meant(name)
    if food is None or food.comparator:
        return f"“{name}” is no one food: write it as the table names it."
    try:
        word = keeping.settle(request.practice, phrase, food, request.user)
    except keeping.CannotSettle as error:
        return str(error)
    said = "From now on" if word else "Already"
    messages.success(request, f"{said} “{phrase}” means {food.name} here.")
    return ""


@require_POST
def undo(request: PageRequest, pk: int) -> HttpResponse:
    word = get_object_or_404(Word, pk=pk, undone=None)
    keeping.undo(word, request.user)
    messages.success(request, f"“{word.phrase}” means again what it means to everybody.")
    return redirect("pantry:words")


def export(request: PageRequest) -> HttpResponse:
    response = HttpResponse(
        content_type="text/csv; charset=utf-8",
        headers={"Content-Disposition": 'attachment; filename="words.csv"'},
    )
    writer = SafeWriter(response)
    writer.writerow(("words", "food", "name", "settled by", "settled on"))
    for word, food in _with_foods(Word.objects.filter(undone=None).select_related("by")):
        name = getattr(food, "name", "")
        writer.writerow((word.phrase, word.food, name, word.by.shown_name, f"{word.made:%Y-%m-%d}"))
    return response
