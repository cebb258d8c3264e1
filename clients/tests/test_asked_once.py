"""What a page asks once: versions in short, weigh-ins, the practice that is at hand."""

from datetime import date, timedelta

from clients.models import MOST_WEIGH_INS, Client
from clients.plan.attention import planned_since
from clients.plan.versions import make_version, versions_made
from clients.testing import ClientCase
from webkit.page_cache import is_reading, reading


class AskedOnce(ClientCase):
    def made(self, goal, on):
        self.client_row.goal = goal
        self.client_row.save()
        return make_version(self.client_row, self.user, f"now {goal}", on)

    def test_versions_in_short_are_those_that_were_made_the_newest_first(self):
        today = date.today()
        self.client_row.vegan_iron = False
        self.made("hold", today - timedelta(days=60))
        self.client_row.vegan_iron = True
        self.made("lose", today - timedelta(days=30))
        newest, oldest = versions_made(self.client_row)
        self.assertEqual((newest.number, oldest.number), (2, 1))
        self.assertEqual((newest.goal, oldest.goal), ("lose", "hold"))
        self.assertEqual((newest.vegan_iron, oldest.vegan_iron), (True, False))
        self.assertEqual(newest.weight_kg, 100)
        self.assertEqual(newest.why, "now lose")
        self.assertEqual(newest.takes_effect, today - timedelta(days=30))
        self.assertEqual(versions_made(Client(name="nobody yet")), [])

    def test_a_goal_is_planned_for_since_the_first_version_with_it(self):
        today = date.today()
        self.assertIsNone(planned_since(self.client_row))
        self.made("hold", today - timedelta(days=90))
        self.made("lose", today - timedelta(days=60))
        self.client_row.weight_kg = 97
        self.made("lose", today - timedelta(days=20))
        self.assertEqual(planned_since(self.client_row), today - timedelta(days=60))

    def test_a_page_that_is_read_fetches_weigh_ins_once_and_a_change_anew(self):
        today = date.today()
        for back in range(5):
            self.client_row.weigh(today - timedelta(days=back), 100 - back, self.user)
        self.assertFalse(is_reading())
        with reading(), self.assertNumQueries(1):
            self.assertTrue(is_reading())
            self.assertEqual(self.client_row.last_weight_kg, 100)
            self.assertEqual(len(self.client_row.newest_weigh_ins(3)), 3)
            self.assertEqual(len(self.client_row.newest_weigh_ins(MOST_WEIGH_INS)), 5)
        self.assertEqual(self.client_row.last_weight_kg, 100)
        self.client_row.weigh(today, 99.5, self.user)
        self.assertEqual(self.client_row.last_weight_kg, 99.5)

    def test_whose_record_it_is_is_at_hand_for_the_practice_that_asks(self):
        row = Client.objects.get(pk=self.client_row.pk)
        with self.assertNumQueries(0):
            self.assertEqual(row.practice, self.practice)
