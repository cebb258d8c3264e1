"""Labels for containers, as a sheet of them: for what a week will fill, and for what came out."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from paper.sheets import Choice, Paper


@dataclass(frozen=True, kw_only=True)
class ContainerLabel:
    """What one label says; `ask`: whether to ask before it is eaten."""

    dish: str
    cooked: date
    eat_by: str
    amount: str
    serve: str
    ask: bool = False


def labels_paper(
    labels: Sequence[ContainerLabel],
    title: str,
    *,
    back: tuple[str, str],
    note: str,
    ask_household: str = "",
    choices: Sequence[Choice] = (),
) -> Paper:
    """The labels, three across a page; without the practice's frame, for they are cut apart."""
    return Paper(
        title=title,
        template="paper/labels.html",
        context={"labels": labels, "ask_household": ask_household},
        back=back,
        kind="labels",
        framed=False,
        note=note,
        choices=choices,
    )
