"""A client who comes in a FHIR file: a first visit begun from it, and what was measured of them
taken over once they are a client."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from django.db import transaction

from clients.models import BloodValue, Client, Intake, WeighIn
from clients.person.forms import TAKEN_OF
from exchange.models import Begun
from journal.blood.values import keep
from nutrition.composition.allergens import ALLERGENS, UnknownAllergen
from nutrition.composition.allergies import allergies_named
from nutrition.composition.nutrients import NUTRIENT
from nutrition.formats.fhir.chart import Chart, Limit
from nutrition.formats.fhir.reading import Found, read_bundle
from nutrition.targets.conditions import conditions
from nutrition.targets.person import LIMITS
from practice.models import Practice, User

# As the form of a first visit holds them. [characters]
NAME, NOTES = 120, 4000


@dataclass(frozen=True, kw_only=True)
class Line:
    """Something that was read: what, how it was taken, and whether somebody has to look."""

    what: str
    taken: str
    sure: bool = True


def lines_of(found: Found) -> list[Line]:
    """What was read of a file, and how surely."""
    chart = found.chart
    out = [
        Line(what="Name", taken=chart.name or "not said", sure=bool(chart.name)),
        Line(
            what="Sex used in equations",
            taken=chart.sex or "not said: choose it",
            sure=bool(chart.sex),
        ),
        Line(what="Born", taken=_born(chart) or "not said", sure=bool(_born(chart))),
        Line(
            what="Height",
            taken=f"{chart.height_cm:.1f} cm" if chart.height_cm else "not said",
            sure=chart.height_cm is not None,
        ),
        Line(
            what="Weights",
            taken=f"{len(chart.weights)}; the last {chart.weights[-1].kg:.1f} kg on "
            f"{chart.weights[-1].on}"
            if chart.weights
            else "none",
            sure=bool(chart.weights),
        ),
        Line(what="Laboratory values", taken=f"{len(chart.values)}"),
    ]
    out += [_allergy(words) for words in chart.allergies]
    out += [_texture(words) for words in chart.textures]
    out += [
        Line(what=f"Order: {_order_words(one)}", taken="into the notes; set it by hand", sure=False)
        for one in chart.limits
        if one.by
    ]
    lacking = [(one.what, f"{one.text}: no {one.missing}") for one in found.asked]
    lacking += [(words, "not taken") for words in found.told]
    return out + [Line(what=what, taken=taken, sure=False) for what, taken in lacking]


def _born(chart: Chart) -> str:
    if chart.birth_date:
        return chart.birth_date.isoformat()
    return str(chart.birth_year) if chart.birth_year else ""


def _allergy(words: str) -> Line:
    known = _allergens(words)
    if known:
        # what labels need not name is looked for by its word alone
        sure = all(one in ALLERGENS for one in known)
        return Line(what=f"Allergy: {words}", taken=f"as {', '.join(known)}", sure=sure)
    return Line(
        what=f"Allergy: {words}", taken="into the notes: no food is known by it, ask", sure=False
    )


def _allergens(words: str) -> list[str]:
    if words in ALLERGENS:
        return [words]
    try:
        return list(allergies_named(words))
    except UnknownAllergen:
        return []


def _texture(words: str) -> Line:
    code = _texture_code(words)
    if code:
        return Line(what=f"Texture: {words}", taken="ticked")
    return Line(what=f"Texture: {words}", taken="into the notes: choose the texture", sure=False)


def _texture_code(words: str) -> str:
    for code, row in conditions().items():
        if row.kind == "texture" and row.name.lower() == words.lower():
            return code
    return ""


def _order_words(one: Limit) -> str:
    unit = NUTRIENT[one.key].unit
    said = [
        f"{name} {value:g} {unit}"
        for name, value in (("at least", one.low), ("aim", one.aim), ("at most", one.high))
        if value is not None
    ]
    by = f", {one.by}{f' ({one.license})' if one.license else ''}"
    return f"{NUTRIENT[one.key].name} {', '.join(said)}{by}"


def begin_from(text: str, practice: Practice, by: User) -> Intake:
    """A first visit with what a file says, for somebody to look over and to finish. Raises
    UnreadableBundle."""
    chart = read_bundle(text).chart
    with transaction.atomic():
        intake = Intake.objects.create(practice=practice, by=by, data=_typed(chart))
        Begun.objects.create(intake=intake, text=text)
    return intake


def _typed(chart: Chart) -> dict[str, list[str]]:
    """The form of a first visit as somebody would have typed it."""
    weight = chart.weights[-1].kg if chart.weights else None
    known = [one for words in chart.allergies for one in _allergens(words)]
    data: dict[str, list[str]] = {
        "name": [chart.name[:NAME]],
        "birth_year": [_born(chart)],
        "allergies": [one for one in known if one in ALLERGENS],
        "other_allergies": [", ".join(one for one in known if one not in ALLERGENS)],
        "has_texture": [code for words in chart.textures if (code := _texture_code(words))],
        "notes": [_notes(chart)[:NOTES]],
    }
    if chart.sex:
        data["sex"] = [chart.sex]
    if _within("height_cm", chart.height_cm):
        data["height_cm"] = [f"{chart.height_cm:.1f}"]
    if _within("weight_kg", weight):
        data["weight_kg"] = [f"{weight:.1f}"]
    if chart.target_kg is not None and _within("weight_kg", chart.target_kg):
        data["target_weight_kg"] = [f"{chart.target_kg:.1f}"]
    return data | _supplements(chart)


def _within(name: str, value: float | None) -> bool:
    low, high = LIMITS[name]
    return value is not None and low <= value <= high


def _supplements(chart: Chart) -> dict[str, list[str]]:
    """The rows of what is taken, with empty ones behind them as the form has them."""
    taken = [one for one in chart.supplements if one.key in TAKEN_OF]
    rows = max(len(taken), 3)
    data = {"supplements-TOTAL_FORMS": [str(rows)], "supplements-INITIAL_FORMS": ["0"]}
    for at in range(rows):
        data[f"supplements-{at}-per_week"] = ["7"]
    for at, one in enumerate(taken):
        typed = (one.key, f"{one.dose:g}", one.form[:80], f"{one.per_week:g}")
        for name, value in zip(("key", "dose", "form", "per_week"), typed, strict=True):
            data[f"supplements-{at}-{name}"] = [value]
    return data


def _notes(chart: Chart) -> str:
    """What the form has no field for, so that it is read and not lost."""
    rows = [("Allergy", words) for words in chart.allergies if not _allergens(words)]
    rows += [("Texture", words) for words in chart.textures if not _texture_code(words)]
    rows += [("Order", _order_words(one)) for one in chart.limits if one.by]
    rows += [
        ("Supplement", f"{NUTRIENT[one.key].name} {one.dose:g} {NUTRIENT[one.key].unit}")
        for one in chart.supplements
        if one.key not in TAKEN_OF
    ]
    rows += [("Goal", chart.goal)] if chart.goal else []
    return "\n".join(f"{what} in the file: {words}" for what, words in rows)


def waiting_for(client: Client) -> Begun | None:
    """The file whose weights and values wait for this client."""
    return Begun.objects.filter(intake__client=client).first()


def counted(begun: Begun) -> tuple[int, int]:
    """How many weights and values wait in a file."""
    chart = read_bundle(begun.text).chart
    return len(chart.weights), len(chart.values)


def take_over(client: Client, begun: Begun, by: User) -> tuple[int, int]:
    """The weights and values of the file become the client's; one of a day that is there stays.
    How many of each."""
    chart = read_bundle(begun.text).chart
    with transaction.atomic():
        there = set(client.weigh_ins.values_list("date", flat=True))
        new = {one.on: one for one in chart.weights if one.on not in there}
        low, high = LIMITS["weight_kg"]
        weights = [one for one in new.values() if low <= one.kg <= high and one.on <= date.today()]
        for one in weights:
            WeighIn.objects.create(client=client, date=one.on, kg=one.kg, remark="from a file")
        known = set(client.blood_values.values_list("key", "date"))
        rows = {
            (one.measured.key, one.measured.on): one
            for one in chart.values
            if (one.measured.key, one.measured.on) not in known
        }
        values = [
            BloodValue(
                key=one.measured.key,
                date=one.measured.on,
                value=one.measured.value,
                unit=one.measured.unit,
                low=one.measured.low,
                high=one.measured.high,
                laboratory=one.laboratory[:80],
                remark=one.remark[:200],
            )
            for one in rows.values()
        ]
        count, _changed = keep(client, values, by) if values else (0, False)
        begun.delete()
    return len(weights), count
