"""Schools side by side, and a practice's own copy."""

from django.urls import reverse

from clients.models import Client
from clients.plan.in_force import plan_of
from clients.plan.versions import make_version
from clients.testing import ClientCase
from nutrition.targets.schools import schools
from schools.editing import SECTIONS, rows_of
from schools.models import OwnSchool


def as_form(own):
    """What the edit page would send if nothing was changed."""
    data = {name: own.data[name] for name in ("name", "leads", "typical_day", "starch_reason")}
    data |= {
        "version": own.version,
        "watched": own.data["watched"],
        "starch_order": ", ".join(own.data["starch_order"]),
    }
    data |= {f"pace-{column}": value for column, value in own.data["pace"].items()}
    for section, rows in rows_of(own.data).items():
        columns = SECTIONS[section]
        data[f"{section}-was"] = [str(i) for i, _row in rows]
        for column in columns:
            data[f"{section}-{column}"] = [row.get(column, "") for _i, row in rows]
    return data


class Schools(ClientCase):
    def copy(self):
        self.client.post(reverse("schools:copy", args=["strength"]))
        return OwnSchool.objects.get()

    def test_where_they_part(self):
        page = self.client.get(reverse("schools:list"))
        for school in schools().values():
            self.assertContains(page, school.name)
        self.assertContains(page, "protein counting")
        one = self.client.get(reverse("schools:page", args=["greens_beans_seeds"]))
        for text in (
            "A pound every three days",
            "Usual guidance: 0.25 to 0.9 kg",
            "common practice, no source",
            "Mushrooms",
        ):
            self.assertContains(one, text)
        self.assertEqual(
            self.client.get(reverse("schools:page", args=["nonsense"])).status_code, 404
        )
        self.assertEqual(
            self.client.post(reverse("schools:copy", args=["nonsense"])).status_code, 404
        )

    def test_a_copy_saved_unchanged_is_the_same_school(self):
        own = self.copy()
        self.assertContains(
            self.client.get(reverse("schools:edit", args=[own.pk])), "1.4 to 2.0 g per kg"
        )
        self.assertEqual(
            self.client.post(reverse("schools:edit", args=[own.pk]), as_form(own)).status_code, 302
        )
        saved = OwnSchool.objects.get()
        self.assertEqual(saved.data, own.data)

    def test_a_line_changed_moves_a_clients_next_targets(self):
        own = self.copy()
        self.client_row.school = own.code
        self.client_row.save()
        make_version(self.client_row, self.user, "First visit")
        form = as_form(own)
        form["targets-low"][0], form["name"] = "1.6", "Stronger"
        self.client.post(reverse("schools:edit", args=[own.pk]), form)
        kg = plan_of(Client.objects.get()).day.weight.kg
        self.assertAlmostEqual(plan_of(Client.objects.get()).rows["protein_g"].target.low, 1.4 * kg)
        make_version(Client.objects.get(), self.user, "The school changed")
        row = plan_of(Client.objects.get()).rows["protein_g"]
        self.assertAlmostEqual(row.target.low, 1.6 * kg)
        self.assertEqual(row.target.voice, "Stronger")

    def test_rows_are_taken_out_and_added(self):
        own = self.copy()
        form = as_form(own)
        form["foods-class"][0] = ""
        form["foods-class"][-1], form["foods-stance"][-1] = "mushrooms", "favor"
        form["foods-reason"][-1], form["foods-source"][-1] = "taste", "common practice, no source"
        self.client.post(reverse("schools:edit", args=[own.pk]), form)
        names = [row["class"] for row in OwnSchool.objects.get().data["foods"]]
        self.assertNotIn("concentrated protein", names)
        self.assertIn("mushrooms", names)

    def test_what_cannot_be_is_refused_and_kept(self):
        own = self.copy()
        form = as_form(own)
        form["targets-low"][0], form["plate-share"][0], form["pace-lose"] = "a lot", "0.9", "7"
        page = self.client.post(reverse("schools:edit", args=[own.pk]), form)
        for text in (
            "The least is a number, not “a lot”",
            "do not add up to 1",
            "a pace in kg a week is 0 to 1.5".capitalize(),
            'value="a lot"',
        ):
            self.assertContains(page, text, status_code=400)
        self.assertEqual(OwnSchool.objects.get().data, own.data)

    def test_a_stale_save_is_refused(self):
        own = self.copy()
        address, form = reverse("schools:edit", args=[own.pk]), as_form(own)
        self.client.post(address, form | {"leads": "First"})
        self.assertContains(
            self.client.post(address, form | {"leads": "Second"}), "Second", status_code=409
        )
        self.assertEqual(OwnSchool.objects.get().data["leads"], "First")

    def test_another_practice_sees_none_of_it(self):
        own = self.copy()
        self.client.force_login(
            self.other_user, backend="django.contrib.auth.backends.ModelBackend"
        )
        for address in (
            reverse("schools:edit", args=[own.pk]),
            reverse("schools:page", args=[own.code]),
        ):
            self.assertEqual(self.client.get(address).status_code, 404)
        self.assertFalse(self.client.get(reverse("schools:list")).context["own"])
