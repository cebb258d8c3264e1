"""How a later stage of the work speaks on an earlier one's pages, without being named there: a
question that it answers, a place that it fills. It registers both when it starts."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from typing import Any, Generic, ParamSpec, TypeVar

P = ParamSpec("P")
R = TypeVar("R")


class Question(Generic[P, R]):
    """Asked by an earlier stage; each later one that knows an answer gives its own."""

    def __init__(self) -> None:
        self._known: list[tuple[tuple[type, ...], Callable[P, R]]] = []

    def answered_by(self, answer: Callable[P, R], *of: type) -> None:
        """Ask this too; only where the first thing that is asked about is one `of` these kinds, or
        of everything."""
        if (of, answer) not in self._known:
            self._known.append((of, answer))

    def ask(self, *args: P.args, **kwargs: P.kwargs) -> Iterator[R]:
        """The answers, in the order of the stages."""
        for of, answer in self._known:
            if not of or isinstance(args[0], of):
                yield answer(*args, **kwargs)

    def first(self, *args: P.args, **kwargs: P.kwargs) -> R | None:
        """The first answer that says something; None for none."""
        return next((said for said in self.ask(*args, **kwargs) if said), None)


# What a template gets besides what its page has, from what the page has.
More = Callable[[Mapping[str, Any]], dict[str, Any]]
_PLACES: dict[str, Place] = {}


class Place:
    """A place on a page, by the name that the page's template calls it by; filled by templates of
    later stages, the lowest order first."""

    def __init__(self, name: str) -> None:
        self._filled: list[tuple[int, str, More]] = []
        _PLACES[name] = self

    def filled_by(self, template: str, order: int = 0, more: More = lambda page: {}) -> None:
        """Show this template there too, with what the page has and `more`."""
        if template not in (name for _order, name, _more in self._filled):
            self._filled.append((order, template, more))
            self._filled.sort(key=lambda one: one[0])

    def __iter__(self) -> Iterator[tuple[str, More]]:
        return iter([(template, more) for _order, template, more in self._filled])


def place_called(name: str) -> Place:
    """Raises KeyError for a place that no page has."""
    return _PLACES[name]
