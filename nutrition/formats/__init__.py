"""What comes in and goes out: recipes as text, CSV, schema.org and saved pages, reports, and days
and problems in files."""

from nutrition.formats.every_table import read_every_table
from nutrition.formats.recipe_files import read_recipe
from nutrition.formats.recipe_text import to_text
from nutrition.formats.report import as_text
from nutrition.formats.schema_org import to_json_ld
from nutrition.formats.shared import Shared

__all__ = [
    "Shared",
    "as_text",
    "read_every_table",
    "read_recipe",
    "to_json_ld",
    "to_text",
]
