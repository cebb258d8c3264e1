"""Two plates: anything beside anything, the density ladder, the lesson for a client."""

from django.apps import AppConfig

from webkit.extension_points import More


class PlatesConfig(AppConfig):
    name = "plates"

    def ready(self) -> None:
        import bowls.places
        import clients.places
        import pantry.places
        import planner.places
        import recipes.places

        def beside(of: str, name: str, key: str = "") -> More:
            """It, as one of two that are compared."""
            return lambda page: {
                "beside": f"{of}-{getattr(page[name], 'slug', None) or page[name].pk}",
                "key": key,
            }

        compare = "plates/_compare_it.html"
        clients.places.DOING.filled_by("plates/_to_ladder.html", 3)
        pantry.places.FOOD_DOING.filled_by(compare, more=beside("food", "food"))
        pantry.places.PACKAGE_DOING.filled_by(compare, more=beside("food", "row"))
        recipes.places.DOING.filled_by(compare, more=beside("recipe", "recipe", "c"))
        recipes.places.VERSIONS_DOING.filled_by("plates/_compare_versions.html")
        bowls.places.DOING.filled_by(compare, 1, beside("bowl", "bowl", "c"))
        planner.places.DOING.filled_by(compare, 1, beside("day", "day", "c"))
