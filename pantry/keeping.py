"""Every change of what a practice adds to the food table: one short transaction each, after which
its foods are looked up anew."""

from django.db import transaction
from django.utils import timezone

from nutrition.composition.food_names import food_names
from nutrition.composition.foods import Food
from nutrition.composition.overrides import Overruling
from nutrition.written.naming import name_food, said_words
from pantry.in_force import changed, make
from pantry.models import Overrule, OwnFood, OwnFoodVersion, Word
from practice.models import Practice, User
from practice.versioned import StaleSave

MOST_PHRASE = 120


class CannotSettle(ValueError):
    """Words that cannot be made to mean one food; the message says why."""


def store(row: OwnFood, by: User, version: int | None = None) -> OwnFoodVersion:
    """Save a food and keep what was copied as its next version. Raises BadLabel, writing nothing,
    and StaleSave where it is no longer at `version`."""
    with transaction.atomic():
        if row.pk is None:
            row.by = by
            row.save()
            make(row)
            made = {"made": row.made, "made_with": row.made_with}
            OwnFood.objects.filter(pk=row.pk).update(**made)
        elif version is not None and (stored := row.stored()).version != version:
            raise StaleSave(stored)
        else:
            make(row)
            row.save()
        changed(row.practice)
        number = row.versions.count() + 1
        return OwnFoodVersion.objects.create(
            practice=row.practice, food=row, number=number, copied=row.copied(), by=by
        )


def retire(row: OwnFood, by: User | None) -> None:
    """Take a food out of what is offered; None brings it back. Where it is used it stays."""
    with transaction.atomic():
        row.retired, row.retired_by = (timezone.now() if by else None), by
        row.save(update_fields=["retired", "retired_by"])
        changed(row.practice)


def delete(row: OwnFood) -> None:
    """Delete a food that nothing uses: who asks has looked."""
    with transaction.atomic():
        practice = row.practice
        row.delete()
        changed(practice)


def settle(practice: Practice, phrase: str, food: Food, by: User) -> Word | None:
    """From now on a phrase means this food here; what it meant before is undone. None where it
    means it already. Raises CannotSettle."""
    said = said_words(phrase)
    if not said or len(phrase) > MOST_PHRASE or all(word.isdigit() for word in said):
        raise CannotSettle("There are no words for a food in it.")
    if name_food(phrase, food_names()).animal:
        raise CannotSettle(f"“{phrase}” names an animal food: it is chosen line by line.")
    with transaction.atomic():
        before = Word.objects.filter(said=" ".join(said), undone=None).first()
        if before is not None:
            if before.food == food.slug:
                return None
            undo(before, by)
        word = Word.objects.create(
            practice=practice, phrase=phrase.strip(), said=" ".join(said), food=food.slug, by=by
        )
        changed(practice)
        return word


def undo(word: Word, by: User) -> None:
    """The words mean again what they mean to everybody."""
    with transaction.atomic():
        word.undone, word.undone_by = timezone.now(), by
        word.save(update_fields=["undone", "undone_by"])
        changed(word.practice)


def overrule(practice: Practice, food: Food, row: Overruling, by: User) -> Overrule:
    """Put a value in place of the table's; one that stood there is ended. `row.said` is the
    reason."""
    with transaction.atomic():
        for before in Overrule.objects.filter(food=food.slug, key=row.key, ended=None):
            end(before, by)
        kept = Overrule.objects.create(
            practice=practice,
            food=food.slug,
            key=row.key,
            value=row.value,
            low=row.low,
            high=row.high,
            reason=row.said,
            by=by,
        )
        changed(practice)
        return kept


def end(row: Overrule, by: User) -> None:
    """The table's value holds again."""
    with transaction.atomic():
        row.ended, row.ended_by = timezone.now(), by
        row.save(update_fields=["ended", "ended_by"])
        changed(row.practice)
