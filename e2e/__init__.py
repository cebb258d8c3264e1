"""The real interface in a headless browser: tests, pictures, times."""
