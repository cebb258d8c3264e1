"""System checks: the core's tables are read whole before anything is served."""

from django.core.checks import Error, register

from nutrition.composition.errors import CoreError
from nutrition.formats.every_table import read_every_table


@register()
def core_tables(app_configs, **kwargs) -> list[Error]:
    try:
        read_every_table()
    except (CoreError, KeyError, TypeError) as error:
        return [Error(f"A table of the core cannot be used: {error}", id="nutrition.E001")]
    return []
