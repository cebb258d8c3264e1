"""What comes in and goes out: recipes as text, CSV, schema.org and saved pages, reports, and days
and problems in files."""
