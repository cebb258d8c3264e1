"""What a client likes for each kind of slot: a few, in order; what was refused is not offered
again."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass, replace

from django.db import transaction
from django.db.models import Max

from bowls.bowl import reckon_bowl
from clients.models import Client
from clients.plan.in_force import Plan
from clients.plan.marks import marked_dish
from nutrition.composition.amounts import DENSITY, amount_of
from nutrition.composition.dish_names import KINDS
from nutrition.planning.candidates import LIKED
from nutrition.planning.kinds import STANDS_IN, USUAL_FOODS
from nutrition.planning.skeleton import Skeleton
from nutrition.safety.gate import Gate
from practice.models import User
from recipes import adding
from recipes.facts import parts_at_hand
from recipes.ownership import open_to
from week.dishes import Thing, bowls_open_to, of_bowl, of_food, of_recipe, thing_of, things_of
from week.models import Favorite
from week.places import EATEN_GLADLY

# So many are proposed at a time, and so many recipes and bowls are looked at for them.
A_FEW, MOST_LOOKED_AT = 4, 150


@dataclass(frozen=True, kw_only=True)
class OfKind:
    """The favorites of a kind with their things, what is proposed besides, how many were tried, and
    the most there may be."""

    kind: str
    kept: list[tuple[Favorite, Thing | None, str]]
    proposed: list[Thing]
    tried: int
    most: int

    @property
    def full(self) -> bool:
        return len(self.kept) >= self.most

    @property
    def over(self) -> bool:
        """Whether there are more than a week has: then they take turns."""
        return len(self.kept) > self.most


def kept_by_kind(client: Client) -> dict[str, list[Favorite]]:
    """The favorites in order, by kind."""
    out: dict[str, list[Favorite]] = {}
    rows = Favorite.objects.filter(client=client, verdict="kept")
    for row in rows.select_related("recipe", "bowl"):
        out.setdefault(row.kind, []).append(row)
    return out


def of_kinds(client: Client, skeleton: Skeleton, plan: Plan, gate: Gate) -> list[OfKind]:
    """The favorites of every kind that the skeleton has. Nothing is proposed for one that is full:
    the search for more is over."""
    kept = kept_by_kind(client)
    rows = list(Favorite.objects.filter(client=client))
    decided = {(row.kind, row.key) for row in rows}
    school = plan.school.name if plan.school else ""
    with parts_at_hand():
        things = everything(client, gate)
        by_key = things_of((row.key for some in kept.values() for row in some), client)
        out = []
        for kind in skeleton.kinds:
            mine = [
                (row, thing, bars_favorite(thing, gate, school))
                for row in kept.get(kind, [])
                for thing in [by_key.get(row.key)]
            ]
            most = skeleton.limit(kind)
            open_ones = [
                one for one in things if kind in one.kinds and (kind, one.key) not in decided
            ]
            out.append(
                OfKind(
                    kind=kind,
                    kept=mine,
                    proposed=[] if len(mine) >= most else nearest(open_ones, plan, client)[:A_FEW],
                    tried=sum(1 for row in rows if row.kind == kind),
                    most=most,
                )
            )
    return out


def _why_not(thing: Thing | None, gate: Gate) -> str:
    if thing is None:
        return "no longer there"
    if thing.unsettled:
        return "has lines that are not settled"
    return gate.why_not_dish(thing.portion.foods)


def bars_favorite(thing: Thing | None, gate: Gate, school: str) -> str:
    """Why something that was kept is not planned with; what only the client's own `school` would
    leave out is the practitioner's to keep."""
    why = _why_not(thing, gate)
    if not why or thing is None or thing.unsettled:
        return why
    return without_school(gate, school).why_not_dish(thing.portion.foods)


def without_school(gate: Gate, school: str) -> Gate:
    """The gate without what only a school would leave out."""
    others = {kind: whose for kind, whose in gate.avoided.items() if whose != school}
    return replace(gate, avoided=others)


def everything(client: Client, gate: Gate) -> list[Thing]:
    """The recipes, bowls and usual foods that may be served to the client and can be counted."""
    found: list[Thing | None] = [of_recipe(row) for row in open_to(client)[:MOST_LOOKED_AT]]
    rows = bowls_open_to(client).prefetch_related("parts__recipe")
    found += [of_bowl(row) for row in rows[:MOST_LOOKED_AT]]
    slugs = dict.fromkeys(slug for some in USUAL_FOODS.values() for slug in some)
    found += [of_food(slug) for slug in slugs]
    return [
        one
        for one in found
        if one is not None and not one.unsettled and not gate.why_not_dish(one.portion.foods)
    ]


def distance(thing: Thing, plan: Plan, client: Client) -> float:
    """How far a day of nothing else would be from what is watched, less what is liked in it. The
    smaller the better."""
    profile = thing.portion.profile
    kcal = profile["energy_kcal"].amount
    liked = sum(
        LIKED
        for word in client.favorite_words
        if any(word.lower().rstrip("s") in one.food.name.lower() for one in thing.portion.foods)
    )
    if plan.day is None or kcal <= 0:
        return -liked
    by = plan.day["energy_kcal"].aim / kcal
    out = 0.0
    for row in plan.watched:
        target = row.target
        times = 1.0 if target.key == DENSITY else by
        amount = amount_of(profile, target.key).amount * times
        per = abs(target.aim) or 1.0
        if target.low is not None:
            out += min(max(target.low - amount, 0.0) / per, 1.0)
        if target.high is not None:
            out += min(max(amount - target.high, 0.0) / per, 1.0)
    return out - liked


def nearest(things: list[Thing], plan: Plan, client: Client) -> list[Thing]:
    """The same, those first that come nearest to what is watched."""
    return sorted(things, key=lambda one: (distance(one, plan, client), one.name))


def decide(client: Client, kind: str, key: str, verdict: str, by: User) -> Favorite | None:
    """Keep something for a kind, last of its favorites, or refuse it. None for what is not
    there."""
    thing = thing_of(key, client)
    if thing is None or kind not in KINDS:
        return None
    with transaction.atomic():
        rows = Favorite.objects.filter(client=client, kind=kind)
        last = rows.filter(verdict="kept").aggregate(last=Max("place"))["last"]
        row, _made = Favorite.objects.update_or_create(
            client=client,
            kind=kind,
            key=thing.key,
            defaults={
                "recipe": thing.recipe,
                "bowl": thing.bowl,
                "food": thing.food.slug if thing.food else "",
                "verdict": verdict,
                "place": 0 if last is None else last + 1,
                "by": by,
            },
        )
    return row


def move_up(row: Favorite) -> None:
    """One place further to the front."""
    with transaction.atomic():
        rows = list(Favorite.objects.filter(client=row.client, kind=row.kind, verdict="kept"))
        at = next((i for i, one in enumerate(rows) if one.pk == row.pk), 0)
        if at:
            rows[at - 1], rows[at] = rows[at], rows[at - 1]
        for place, one in enumerate(rows):
            Favorite.objects.filter(pk=one.pk).update(place=place)


def eaten_gladly(client: Client) -> list[str]:
    """The dishes that were eaten gladly of late, by what the planning knows them by: they come into
    the next weeks by themselves, as long as nobody refused them."""
    return list(dict.fromkeys(key for keys in EATEN_GLADLY.ask(client) for key in keys))


def offers(client: Client, kind: str, plan: Plan, gate: Gate, but: Collection[str]) -> list[Thing]:
    """A few that would fit as favorites of a kind, the nearest to the targets first, but for what
    is known already or was refused."""
    rows = Favorite.objects.filter(client=client, kind=kind, verdict="refused")
    gone = {*but, *(row.key for row in rows.select_related("recipe", "bowl"))}
    with parts_at_hand():
        fit = [one for one in everything(client, gate) if kind in one.kinds and one.key not in gone]
    return nearest(fit, plan, client)[:A_FEW]


def in_turn(some: list[Thing], most: int, turn: int) -> list[Thing]:
    """So many of the favorites of a kind at most: of more, the next ones in every week."""
    if len(some) <= most:
        return some
    first = turn * most % len(some)
    return [*some[first:], *some[:first]][:most]


def for_planning(
    client: Client,
    kinds: Collection[str],
    plan: Plan,
    gate: Gate,
    turns: tuple[Skeleton, int] | None = None,
) -> tuple[list[Thing], dict[str, list[str]]]:
    """What a week is planned from: the favorites of each kind and what was eaten gladly of late, or
    where a client has none yet a few that fit; and of each kind the keys in order. With the
    skeleton and the number of the week as `turns`, of many favorites each has its turn."""
    kept = kept_by_kind(client)
    rows = Favorite.objects.filter(client=client, verdict="refused")
    refused = {(row.kind, row.key) for row in rows.select_related("recipe", "bowl")}
    school = plan.school.name if plan.school else ""
    things: dict[str, Thing] = {}
    order: dict[str, list[str]] = {}
    with parts_at_hand():
        others: list[Thing] | None = None
        keys = [row.key for kind in kinds for row in kept.get(kind, [])]
        gladly = eaten_gladly(client)
        by_key = things_of([*keys, *gladly], client)
        for kind in kinds:
            mine = [by_key.get(row.key) for row in kept.get(kind, [])]
            mine += [
                one
                for key in gladly
                if (one := by_key.get(key)) is not None
                and kind in one.kinds
                and one not in mine
                and (kind, key) not in refused
            ]
            some = [one for one in mine if one is not None and not bars_favorite(one, gate, school)]
            if some and turns is not None:
                skeleton, turn = turns
                some = in_turn(some, skeleton.limit(kind), turn)
            if not some:
                others = everything(client, gate) if others is None else others
                # where there is nothing of a kind at all, what stands in for it
                for own in (kind, STANDS_IN.get(kind, kind)):
                    fit = [
                        one for one in others if own in one.kinds and (kind, one.key) not in refused
                    ]
                    if fit:
                        break
                some = nearest(fit, plan, client)[: 2 * A_FEW]
            for one in some:
                things[one.key] = one
            order[kind] = [one.key for one in some]
    return list(things.values()), order


@dataclass(frozen=True, kw_only=True)
class Found:
    """Something that was searched for on the favorites' page: its key and name, the kinds that it
    can stand for, the skeleton's first, and why it may not be served, if it may not."""

    key: str
    name: str
    said: str
    kinds: list[str]
    why: str


def found_by_words(client: Client, gate: Gate, q: str) -> list[tuple[str, adding.Offered]]:
    """The bowls, recipes and foods of the practice that hold some words, each with the key that a
    week knows it by."""
    asked = adding.typed(q)
    rows = bowls_open_to(client)
    bowls = [
        ("bowl", marked_dish(gate, bowl, reckon_bowl(bowl).ingredients))
        for bowl in adding.with_words(rows, "name", asked.words)[: adding.MOST_DISHES]
    ]
    recipes = [("recipe", one) for one in adding.found_recipes(client, gate, asked)]
    foods = adding.found_foods(client, gate, asked, client.practice.measures)
    offered = adding.in_order(client, asked, [*bowls, *recipes], foods)
    return [(f"{row.field}-{row.value}", row) for row in offered]


def search(client: Client, skeleton: Skeleton, plan: Plan, gate: Gate, q: str) -> list[Found]:
    """Recipes, bowls and foods by words, for the kinds that they can stand for."""
    things = things_of([key for key, _row in found_by_words(client, gate, q)], client)
    school = plan.school.name if plan.school else ""
    out = []
    for key, thing in things.items():
        own = [kind for kind in skeleton.kinds if kind in thing.kinds]
        kinds = [*own, *(kind for kind in KINDS if kind in thing.kinds and kind not in own)]
        if kinds:
            profile = thing.portion.profile
            said = f"{profile['energy_kcal'].amount:.0f} kcal"
            why = bars_favorite(thing, gate, school)
            out.append(Found(key=key, name=thing.name, said=said, kinds=kinds, why=why))
    return out
