"""The stages of the work in the order of the menu: a letter that leads to each, and its list."""

from dataclasses import dataclass

from django.http import HttpRequest
from django.urls import reverse

from webkit.client_address import without_client


@dataclass(frozen=True)
class Stage:
    """A stage's letter after G, its name, the name of its list, and the words in an address that
    make it one of the stage: the first that is any stage's counts."""

    letter: str
    name: str
    to: str
    words: tuple[str, ...]


STAGES = (
    Stage("c", "Clients", "clients:list", ("clients",)),
    Stage("p", "Pantry", "pantry:search", ("pantry",)),
    Stage("r", "Recipes", "recipes:list", ("recipes",)),
    Stage("b", "Bowls", "bowls:list", ("bowls",)),
    Stage("d", "Days", "planner:list", ("days",)),
    Stage("w", "Week", "week:list", ("weeks", "shopping")),
    Stage("k", "Kitchen", "kitchen:list", ("kitchen",)),
    Stage("j", "Journal", "journal:page", ("journal",)),
    Stage("t", "Compare", "plates:compare", ("compare",)),
)


def stages(request: HttpRequest) -> dict[str, object]:
    """For the menu of every page: each stage, its address, and whether the page is of it."""
    known = {word: one for one in STAGES for word in one.words}
    words = without_client(request.path_info).split("/")
    here = next((known[word] for word in words if word in known), None)
    return {
        "stages": [{"stage": one, "url": reverse(one.to), "here": one is here} for one in STAGES]
    }
