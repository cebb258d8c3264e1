"""The schools a practice can choose from: the built-in ones and its own copies."""

from nutrition.targets.schools import School, read_school, schools
from schools.models import OwnSchool
from webkit.request_values import key_in


def school_named(code: str) -> School | None:
    """The school of that code, built in or the practice's own; None for no school, or one that is
    gone."""
    if code in schools():
        return schools()[code]
    _base, _colon, pk = code.partition(":")
    key = key_in(pk)
    # one that was taken away still holds for the clients who have it
    own = OwnSchool.with_removed.filter(pk=key).first() if key is not None else None
    return read_school(own.code, own.data) if own and own.code == code else None


def school_choices() -> list[tuple[str, str]]:
    """All of them by code, with their names."""
    own = [(row.code, f"{row.name} (own copy)") for row in OwnSchool.objects.all()]
    return [(code, school.name) for code, school in schools().items()] + own
