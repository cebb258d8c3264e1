"""Animal foods named in a line: never taken for a plant that only sounds alike, and never silently
replaced."""

from __future__ import annotations

from nutrition.composition.food_search import words

# What stands in its place in a kitchen, offered and never taken by itself. Common practice, no
# source.
INSTEAD: dict[str, tuple[str, ...]] = {
    "butter": ("olive-oil", "almond-butter"),
    "ghee": ("olive-oil",),
    "lard": ("olive-oil",),
    "honey": ("maple-syrup", "date-syrup"),
    "cream": ("coconut-cream-canned", "cashews"),
    "buttermilk": ("soy-milk-unsweetened",),
    "cheese": ("nutritional-yeast-fortified", "tofu-firm"),
    "egg": ("flaxseed-ground", "tofu-firm"),
    "chicken": ("tofu-extra-firm", "tempeh"),
    "turkey": ("tofu-extra-firm", "tempeh"),
    "beef": ("soy-mince-dry", "lentils-cooked"),
    "mayonnaise": ("soy-yogurt", "cashews"),
    "gelatin": (),
    "whey": (),
}
OTHERS = frozenset(
    "mayo pork lamb veal duck goose bacon ham prosciutto salami chorizo pepperoni venison "
    "meat steak fish salmon tuna cod haddock trout halibut tilapia sardine anchovy "
    "mackerel herring shrimp prawn crab lobster oyster clam mussel scallop squid octopus "
    "caviar tallow suet casein worcestershire parmesan cheddar mozzarella feta ricotta "
    "gouda brie halloumi paneer".split()
)
# With one of these it is a plant after all: almond butter, coconut cream, oyster mushrooms, butter
# beans, vegan cheese.
PLANT_WORDS = frozenset(
    "vegan plant based vegetarian soy soya almond cashew coconut oat rice hemp pea peanut "
    "nut seed sunflower sesame pumpkin hazelnut walnut pecan macadamia pistachio cocoa "
    "cacao shea apple flax chia lettuce mushroom bean squash tartar wheat corn avocado "
    "tofu seitan jackfruit replacer substitute free plum tomato fruit berry cucumber leaf "
    "lotus head of".split()
)


def animal_in(phrase: str) -> tuple[str, tuple[str, ...]] | None:
    """The animal food a phrase names and the slugs of what may stand in its place; None where it
    names none."""
    said = words(phrase)
    if not PLANT_WORDS.isdisjoint(said):
        return None
    named = next((word for word in said if word in INSTEAD or word in OTHERS), None)
    if named is None:
        return None
    if {"broth", "stock", "bouillon"} & set(said):
        return phrase, ("vegetable-broth-low-sodium", "vegetable-broth")
    return named, INSTEAD.get(named, ("tofu-firm", "tempeh"))
