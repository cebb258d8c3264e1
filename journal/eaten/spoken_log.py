"""What somebody says they ate, read into rows of a logged day: dishes of that day's plan first,
then those of the practice, then foods."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

from bowls.models import Bowl
from clients.models import Client
from journal.models import LoggedDay, LoggedEntry
from nutrition.composition.foods import Food, food_table
from nutrition.composition.helpings import first_helping_g
from nutrition.follow_up.kitchen_line import (
    ALL,
    INSTEAD,
    LEFT_OUT,
    Piece,
    by_meal,
    named_in,
    pieces,
)
from nutrition.follow_up.told_amounts import AS_SERVED, NAMED, SAME_AS_PLANNED
from nutrition.written.finding import to_choose
from nutrition.written.guess import SAID_OUT, read_guess
from nutrition.written.line import Line
from nutrition.written.matching import reckon_line
from planner.models import DayEntry
from planner.planned_copies import plan_dish, plan_out
from recipes.models import Recipe
from recipes.ownership import open_to
from webkit.request_values import TooLong
from week.dishes import bowls_open_to
from week.models import Favorite

MOST_CHOICES = 4
# So many things can be said at once, each of so many characters.
MOST_PIECES, MOST_PIECE = 60, 200
# How an amount came to be known.
SERVED, EYED = "as it was served", "by eye"


@dataclass
class Heard:
    """What a line was read as: rows to keep (not saved), and the meals of which all was as
    planned."""

    rows: list[LoggedEntry] = field(default_factory=list)
    as_planned: list[str] = field(default_factory=list)


class Names:
    """The dishes that somebody may mean: of the day's plan, of their favorites, of the practice."""

    def __init__(self, client: Client, planned: Sequence[DayEntry]) -> None:
        self.client = client
        self.planned = list(planned)
        self.planned_names = [dish_name(row) for row in self.planned]

    @cached_property
    def dishes(self) -> list[Recipe | Bowl]:
        """Those of the practice; most days have nothing to settle, and never ask."""
        return [*open_to(self.client)[:400], *bowls_open_to(self.client)[:200]]

    @cached_property
    def names(self) -> list[str]:
        return [_title(one) for one in self.dishes]

    @cached_property
    def liked(self) -> list[int]:
        """Where the favorites stand among the dishes."""
        kept = Favorite.objects.filter(client=self.client, verdict="kept")
        keys = set(kept.values_list("key", flat=True))
        return [i for i, one in enumerate(self.dishes) if _key(one) in keys]

    @property
    def known(self) -> list[str]:
        return [*self.planned_names, *self.names]

    def planned_by(self, words: str, meal: str) -> list[DayEntry]:
        """The planned rows that these words mean; those of the meal alone where it has some."""
        found = [self.planned[i] for i in named_in(words, self.planned_names)]
        mine = [row for row in found if row.meal == meal]
        return mine or found

    def planned_food(self, slug: str, meal: str) -> DayEntry | None:
        """The planned row of a food, of the meal where it is in several."""
        found = [row for row in self.planned if row.food == slug]
        return next((row for row in found if row.meal == meal), found[0] if found else None)

    def dishes_by(self, words: str) -> list[Recipe | Bowl]:
        """The dishes that these words mean, the favorites alone where one of them is meant."""
        found = named_in(words, self.names)
        liked = [i for i in found if i in self.liked]
        return [self.dishes[i] for i in (liked or found)]


def _key(one: Recipe | Bowl) -> str:
    return f"{'bowl' if isinstance(one, Bowl) else 'recipe'}-{one.pk}"


def _title(one: Recipe | Bowl) -> str:
    return one.name if isinstance(one, Bowl) else one.title


def dish_name(row: Any) -> str:
    """What a planned row is called."""
    if row.planned is not None:
        return str(row.planned.data["title"])
    if row.bowl is not None:
        return row.bowl.name
    if row.recipe is not None:
        return row.recipe.title
    return food_table()[row.food].name if row.food in food_table() else row.food


def hear(text: str, day: LoggedDay, meal: str, names: Names, system: str) -> Heard:
    """A line as rows of a day. Nothing that was said is lost: what cannot be settled is a row that
    asks. Raises TooLong for more than one line holds."""
    if SAID_OUT.match(text):
        return Heard(rows=[of_out(day, meal, text)])
    out, said = Heard(), [(named, pieces(words, names.known)) for named, words in by_meal(text)]
    count = sum(len(some) for _named, some in said)
    if count > MOST_PIECES:
        raise TooLong(
            f"That is {count} things, and {MOST_PIECES} can be said at once. Nothing was saved: "
            f"say it in two."
        )
    longest = max((piece.text for _named, some in said for piece in some), key=len, default="")
    if len(longest) > MOST_PIECE:
        raise TooLong(
            f"“{longest[:60]}…” is one thing of {len(longest)} characters, and {MOST_PIECE} can be "
            f"kept of one. Nothing was saved: put commas between what was eaten."
        )
    for named, some in said:
        here = named or meal
        for piece in some:
            if piece.kind == ALL:
                out.as_planned.append(here)
                continue
            into = here
            if piece.kind == INSTEAD:
                for row in names.planned_by(piece.instead_of, here)[:1]:
                    out.rows.append(of_planned(day, row, 0.0, LEFT_OUT, piece.text))
                    into = row.meal
            out.rows.append(_row(piece, day, into, names, system))
    return out


def of_out(day: LoggedDay, meal: str, text: str) -> LoggedEntry:
    """A meal eaten out as it was said. Raises UnreadableGuess."""
    row = LoggedEntry(day=day, meal=meal, how="besides", basis=EYED, said=text)
    plan_out(row, day.practice, read_guess(text))
    row.locked = False
    return row


def _row(piece: Piece, day: LoggedDay, meal: str, names: Names, system: str) -> LoggedEntry:
    planned = [] if piece.kind == INSTEAD else names.planned_by(piece.words, meal)
    if len(planned) == 1 and _is_dish_or_share(planned[0], piece):
        return _of_piece(day, planned[0], piece)
    if piece.kind == LEFT_OUT:
        row = _asking(day, meal, piece)
        row.how = LEFT_OUT
        return row
    dishes = names.dishes_by(piece.words)
    how = "instead" if piece.kind == INSTEAD else "besides"
    several = piece.share is not None and (len(planned) > 1 or len(dishes) > 1)
    line = reckon_line(piece.line, system=system, eaten=True)
    if several:
        # half of which of them? it asks
        row = _asking(day, meal, piece)
    elif _is_food(line) and line.food and (len(dishes) != 1 or _is_fruit(line, piece)):
        row = _food_row(day, meal, line.food, line)
        same = names.planned_food(line.food.slug, meal)
        if same is not None:
            # another amount of what was planned decides that
            row.of_entry, row.meal = same, same.meal
            how = _how((line.grams or 0.0) / same.amount if same.amount else 1.0)
    elif len(dishes) == 1:
        row = _dish_row(day, meal, dishes[0], piece)
    else:
        row = _asking(day, meal, piece)
    row.how, row.said = how, piece.text
    return row


def _is_food(line: Line) -> bool:
    """Whether a line is a food with its amount, and nothing of it is asked."""
    return line.resolved and line.sure and not line.ask


def _is_fruit(line: Line, piece: Piece) -> bool:
    """Whether no more than a fruit was named: "pear" is one, and not the breakfast with pears."""
    return line.food is not None and line.food.group == "fruit" and len(piece.words.split()) == 1


def _is_dish_or_share(row: DayEntry, piece: Piece) -> bool:
    """Whether the words mean the planned row itself: a dish, or a food of which no amount was
    said."""
    if not row.food or piece.kind == LEFT_OUT:
        return True
    line = reckon_line(piece.line, eaten=True)
    return not line.resolved or piece.share is not None


def _of_piece(day: LoggedDay, row: DayEntry, piece: Piece) -> LoggedEntry:
    if piece.kind == LEFT_OUT:
        return of_planned(day, row, 0.0, LEFT_OUT, piece.text)
    share = 1.0 if piece.share is None else piece.share
    # so many servings of a dish are servings, not shares of what was planned
    served = any(word in piece.text.lower() for word in ("serving", "portion", "bowl", "helping"))
    if served and not row.food and piece.share is not None and row.amount > 0:
        share = piece.share / row.amount
    spread = (piece.low / piece.share, piece.high / piece.share) if piece.share else None
    return of_planned(day, row, share, _how(share), piece.text, spread)


def _how(share: float) -> str:
    """What so much of what was planned is called."""
    low, high = SAME_AS_PLANNED
    return "as planned" if low <= share <= high else "less" if share < low else "more"


def of_planned(
    day: LoggedDay,
    row: DayEntry,
    share: float,
    how: str,
    said: str = "",
    spread: tuple[float, float] | None = None,
) -> LoggedEntry:
    """So much of what was planned, as a row; `spread` is the range as shares of that."""
    low, high = spread or AS_SERVED
    amount = row.amount * share
    return LoggedEntry(
        day=day,
        meal=row.meal,
        bowl=row.bowl,
        recipe=row.recipe,
        food=row.food,
        planned=row.planned,
        amount=amount,
        low=amount * low,
        high=amount * high,
        how=how,
        basis=SERVED if share == 1.0 else EYED,
        said=said,
        of_entry=row,
    )


def _food_row(day: LoggedDay, meal: str, food: Food, line: Line) -> LoggedEntry:
    return LoggedEntry(
        day=day,
        meal=meal,
        food=food.slug,
        amount=line.grams or 0.0,
        low_g=line.low,
        high_g=line.high,
        basis=line.basis,
    )


def _dish_row(day: LoggedDay, meal: str, dish: Recipe | Bowl, piece: Piece) -> LoggedEntry:
    amount = 1.0 if piece.share is None else piece.share
    told = piece.share is not None
    row = LoggedEntry(
        day=day,
        meal=meal,
        amount=amount,
        low=piece.low if told else amount * NAMED[0],
        high=piece.high if told else amount * NAMED[1],
        basis=EYED,
    )
    if isinstance(dish, Bowl):
        row.bowl = dish
    else:
        row.recipe = dish
    plan_dish(row, day.practice)
    return row


def _asking(day: LoggedDay, meal: str, piece: Piece) -> LoggedEntry:
    return LoggedEntry(day=day, meal=meal, amount=0.0, said=piece.text)


OF_ANIMAL = (
    "from an animal, and not in the table: it stays as it was said, and the day counts as "
    "“at least”"
)


@dataclass(frozen=True)
class Choices:
    """What a row that nobody settled may be: why it asks, and what could be meant, each with the
    helping it would count as. [g]"""

    why: str
    foods: list[tuple[Food, float]]
    dishes: list[tuple[str, str]]


def choices_for(row: LoggedEntry, names: Names, system: str) -> Choices:
    """What to offer for a row that asks."""
    found = pieces(row.said, names.known)
    piece = found[0] if found else Piece(text=row.said, words=row.said, line=row.said)
    line = reckon_line(piece.line or piece.words, system=system, eaten=True)
    if line.animal:
        return Choices(OF_ANIMAL, [], [])
    matches = [match.food for match in to_choose(line)]
    if line.twin:
        matches = [food_table()[line.twin], *matches]
    if line.food is not None:
        matches = [line.food, *(food for food in matches if food.slug != line.food.slug)]
    # a food that was named with its amount keeps that amount
    known = line.grams if line.resolved else None
    foods = [(food, known or first_helping_g(food)) for food in matches[:MOST_CHOICES]]
    dishes = [(_key(one), _title(one)) for one in names.dishes_by(piece.words)][:MOST_CHOICES]
    why = line.why or line.ask or "which of these is it, and how much?"
    return Choices(why, foods, dishes)
