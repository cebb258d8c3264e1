"""A package as it is copied, for the tests of this area and of later ones."""

from clients.testing import ClientCase
from pantry.models import OwnFood

LABEL = {
    "name": "Gannet seed spread",
    "kind": "us",
    "serving": "2 tbsp",
    "serving_size": "32 g",
    "servings": "about 14",
    "energy_kcal": "200",
    "fat_g": "17",
    "saturated_fat_g": "2",
    "sodium_mg": "120",
    "carbohydrate_g": "7",
    "fiber_g": "3",
    "sugars_g": "3",
    "added_sugars_g": "3",
    "protein_g": "6",
    "ingredients": "Sunflower seeds, cane sugar, palm oil, salt. May contain sesame.",
    "claims": "No added sugar, vegan",
    "like": "sunflower seed butter",
}


class OwnFoodsCase(ClientCase):
    """Packages can be copied."""

    def copy(self, **more):
        response = self.post("/pantry/packages/new/", LABEL | more)
        self.assertEqual(response.status_code, 302, response.content[:3000])
        return OwnFood.objects.order_by("-pk").first()
