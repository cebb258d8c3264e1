"""What a dish tells beyond its nutrients, and how dishes compare."""
