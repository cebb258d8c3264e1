"""The places on a page that later stages fill."""

from collections.abc import Mapping
from typing import Any, cast

from django import template
from django.template import Context
from django.utils.safestring import SafeString, mark_safe

from webkit.extension_points import place_called

register = template.Library()


@register.simple_tag(takes_context=True)
def place(context: Context, name: str) -> SafeString:
    """What later stages show at a place of this page. Raises KeyError for a place that is not
    there."""
    shown = []
    for file, more in place_called(name):
        with context.push(**more(cast(Mapping[str, Any], context.flatten()))):
            engine = context.template.engine  # type: ignore[union-attr]
            shown.append(engine.get_template(file).render(context))
    # each was escaped when it was rendered
    return mark_safe("".join(shown))  # noqa: S308
