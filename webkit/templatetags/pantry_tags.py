"""Filters and tags for templates: nothing here computes, it only says."""

import re
from collections.abc import Sized
from typing import Any

from django import template
from django.template import Context
from django.utils.html import format_html

from nutrition.composition.amounts import amount_of
from nutrition.composition.food_search import Match
from nutrition.composition.foods import Food
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.overrides import value_in
from nutrition.composition.profile import Amount, Profile
from nutrition.insight.comparison import heap_words
from nutrition.targets.conditions import those
from nutrition.written.finding import to_choose
from nutrition.written.line import Line
from webkit import figures
from webkit.places import WHERE_FROM

register = template.Library()
_WEIGHT = re.compile(r" ?\(\d[\d,.]* g\)")
# A change of less than this a week is within what mornings differ by. [kg]
NO_CHANGE_KG = 0.05


@register.filter
def heap(volume_ml: float) -> str:
    """What so much food looks like: "a handful". [mL]"""
    return heap_words(volume_ml)


@register.filter
def amount(profile: Profile, key: str) -> str:
    return figures.amount(amount_of(profile, key), key)


@register.filter
def brief(profile: Profile, key: str) -> str:
    """An amount where there is little room: "≥ 31 g"."""
    return figures.brief(figures.amount(amount_of(profile, key), key))


@register.filter
def span(profile: Profile, key: str) -> str:
    return figures.span(amount_of(profile, key), key)


@register.filter
def unknown(profile: Profile, key: str) -> str:
    return figures.unknown(amount_of(profile, key))


@register.filter
def said(value: Amount, key: str) -> str:
    return figures.amount(value, key)


@register.filter
def said_span(value: Amount, key: str) -> str:
    return figures.span(value, key)


@register.filter
def nutrient_name(key: str) -> str:
    return NUTRIENT[key].name


@register.filter
def nutrient_unit(key: str) -> str:
    return NUTRIENT[key].unit


@register.filter
def grams(value: float | None) -> str:
    return "" if value is None else figures.grams(value)


@register.filter
def without_grams(said: str) -> str:
    """Words of amounts without the weights that stand in brackets behind them."""
    return _WEIGHT.sub("", said)


@register.filter
def digits(value: float | None, decimals: int = 0) -> str:
    return "" if value is None else figures.digits(float(value), int(decimals))


@register.filter
def percent(value: float) -> str:
    return f"{value * 100:.0f} %"


@register.filter
def plain_number(value: float | None) -> str:
    """A number for an input field: no grouping, no trailing zeros."""
    return "" if value is None else f"{float(value):.1f}".rstrip("0").rstrip(".")


@register.simple_tag
def per_100(food: Food, key: str) -> str:
    value = food.per_100_g(key)
    return (
        "unknown"
        if value is None
        else f"{figures.digits(value, NUTRIENT[key].decimals)} {NUTRIENT[key].unit}"
    )


@register.simple_tag
def index_text(indices: dict[str, float | None], key: str, decimals: int) -> str:
    value = indices.get(key)
    return "unknown" if value is None else figures.digits(value, decimals)


@register.simple_tag
def where_from(of: str, key: str) -> str | None:
    """The address that says where a number comes from."""
    return WHERE_FROM.first(of, key)


@register.simple_tag(takes_context=True)
def why_link(context: Context, key: str, name: str) -> str:
    """The name of a number, leading to where it comes from where the page knows what it is of."""
    of = context.get("why_of")
    if not of:
        return name
    url = WHERE_FROM.first(of, key)
    return format_html(
        '<a href="{0}" hx-get="{0}" hx-target="#why" hx-swap="innerHTML">{1}</a>', url, name
    )


# So many choices are read at a glance; more are found by a few letters.
MOST_AT_A_GLANCE = 20


@register.filter
def is_long(choices: Sized) -> bool:
    """Whether a list of choices is too long to be read at a glance."""
    return len(choices) > MOST_AT_A_GLANCE


@register.filter
def until_comma(words: str) -> str:
    """ "lunch, 35 % of the day" is "lunch" where there is little room."""
    return words.partition(",")[0]


@register.filter
def lookup(mapping: dict, key: object) -> object:
    return mapping.get(key)


@register.filter
def in_unit(value: float, key: str) -> str:
    """An amount of a nutrient in words, from the bare number."""
    return f"{figures.digits(value, NUTRIENT[key].decimals)} {NUTRIENT[key].unit}"


@register.filter
def share_width(share: float | None) -> str:
    """A share [0 to 1] as the width of a bar a hundred wide."""
    return f"{min(max((share or 0.0) * 100, 0), 100):.1f}"


@register.filter
def left_of(hint: Any, violation: float) -> str:
    """How much of what is missed a change leaves, in words a person says."""
    share = hint.violation / violation if violation > 0 else 0.0
    words = ((0.1, "next to none"), (0.3, "about a quarter"), (0.42, "about a third"))
    more = ((0.6, "about half"), (0.85, "about three quarters"))
    return next((said for most, said in (*words, *more) if share <= most), "most")


@register.filter
def words_of(text: str) -> list[str]:
    return text.split()


@register.filter
def cell(row: dict, column: str) -> object:
    """A value for an input field, empty where there is none; a whole number without its decimal."""
    value = row.get(column, "")
    return f"{value:g}" if isinstance(value, float) else value


@register.filter
def level_class(level: str) -> str:
    """The class that draws a caution's level."""
    return level.replace(" ", "-")


@register.filter
def signed(value: float | None, key: str) -> str:
    """A difference with its sign, empty where it would print as nothing."""
    if value is None:
        return ""
    text = figures.digits(abs(value), NUTRIENT[key].decimals)
    sign = "+" if value > 0 else "\u2212"
    return "" if not text.strip("0.,") else f"{sign}{text} {NUTRIENT[key].unit}"


@register.filter
def magnitude(value: float) -> float:
    return abs(value)


@register.filter
def signed_grams(value: float) -> str:
    """A difference in weight with its sign."""
    return ("+" if value > 0 else "\u2212") + figures.grams(abs(value))


@register.filter
def signed_kg(value: float) -> str:
    """A change of weight a week with its sign; what no scale shows is no change."""
    if abs(value) < NO_CHANGE_KG:
        return "no change"
    return ("+" if value > 0 else "\u2212") + figures.digits(abs(value), 2) + " kg"


@register.filter
def condition_name(code: str) -> str:
    """What a condition is called."""
    found = those([code])
    return found[0].name if found else code


@register.filter
def signed_short(value: float) -> str:
    """A number with its sign and two decimals."""
    return ("\u2212" if value < -0.005 else "+") + figures.digits(abs(value), 2)


@register.filter
def signed_percent(share: float) -> str:
    return f"{share * 100:+.0f} %".replace("-", "\u2212")


@register.simple_tag
def table_says(food: Food, key: str) -> str:
    """What a row says itself of what was overruled."""
    value = value_in(food, key)
    return "unknown" if value is None else f"{value:.4g}"


@register.filter(name="to_choose")
def foods_to_choose(line: Line) -> list[Match]:
    """The foods to choose from for a line."""
    return to_choose(line)
