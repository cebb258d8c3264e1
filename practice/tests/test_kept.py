"""What every kept record can do: refuse a stale save, go back a step, be put away and brought back;
a form that is sent twice; a note in passing."""

from datetime import timedelta
from unittest.mock import patch

from django.core.cache import cache
from django.db import OperationalError, connection, models
from django.http import HttpResponse, HttpResponseRedirect
from django.test import RequestFactory
from django.utils import timezone

from practice.models import User
from practice.passing_notes import note_in_passing
from practice.removal import (
    Archivable,
    PresentManager,
    Removable,
    offered_back,
    put_away_or_back,
)
from practice.resubmission import OnceMiddleware
from practice.testing import PracticeCase
from practice.undo import KEPT, Undoable
from practice.uses import MOVES, USES, counted, moves_of, some, uses_of
from practice.versioned import StaleSave, page_in, version_in


class Board(Undoable, Archivable, Removable):
    """A record of rows, for these tests alone."""

    name = models.CharField(max_length=40)
    objects = PresentManager()
    with_removed = models.Manager()
    undo_rows, undo_fields = "pegs", ("place", "color", "whose_id")

    class Meta:
        app_label = "practice"

    def undo_words(self, row):
        return f"{row['color']} at {row['place']}"


class Peg(models.Model):
    board = models.ForeignKey(Board, on_delete=models.CASCADE, related_name="pegs")
    place = models.IntegerField()
    color = models.CharField(max_length=20)
    whose = models.ForeignKey(User, on_delete=models.SET_NULL, null=True, related_name="+")

    class Meta:
        app_label = "practice"
        ordering = ["place"]


class KeptCase(PracticeCase):
    @classmethod
    def setUpClass(cls):
        with connection.schema_editor() as editor:
            editor.create_model(Board)
            editor.create_model(Peg)
        super().setUpClass()

    @classmethod
    def tearDownClass(cls):
        super().tearDownClass()
        with connection.schema_editor() as editor:
            editor.delete_model(Peg)
            editor.delete_model(Board)

    @classmethod
    def make_rows(cls):
        cls.board = Board.objects.create(name="rigging")
        cls.red = Peg.objects.create(board=cls.board, place=1, color="red", whose=cls.user)

    def setUp(self):
        super().setUp()
        self.board = Board.objects.get(pk=self.board.pk)

    def pegs(self):
        return list(self.board.pegs.values_list("place", "color"))

    def add(self, place, color, version=None, page="", **more):
        with self.board.changing(version, self.user, page, **more) as board:
            board.pegs.create(place=place, color=color)


class Undo(KeptCase):
    def test_a_step_puts_the_rows_back_and_says_whose_it_was(self):
        self.add(2, "blue")
        with self.board.changing(None, self.user) as board:
            board.pegs.filter(place=1).update(color="green")
        with self.board.changing(None, self.user) as board:
            board.pegs.filter(place=1).delete()
        self.assertEqual(self.pegs(), [(2, "blue")])
        for wanted in ([(1, "green"), (2, "blue")], [(1, "red"), (2, "blue")], [(1, "red")]):
            self.assertEqual(self.board.step_back(None), self.user.shown_name)
            self.assertEqual(self.pegs(), wanted)
        self.assertEqual(self.board.step_back(None), "")

    def test_the_row_comes_back_as_the_same_row(self):
        with self.board.changing(None, self.user) as board:
            board.pegs.all().delete()
        self.board.step_back(None)
        self.assertEqual(self.board.pegs.get().pk, self.red.pk)

    def test_what_points_to_something_deleted_meanwhile_stays_away(self):
        gone = User.objects.create_user("gone", password="a-long-password", practice=self.practice)
        self.board.pegs.create(place=3, color="white", whose=gone)
        self.add(4, "black")
        self.board.pegs.filter(place=3).delete()
        gone.delete()
        self.board.step_back(None)
        self.assertEqual(self.pegs(), [(1, "red")])

    def test_thirty_steps_are_kept(self):
        self.assertEqual(KEPT, 30)
        for place in range(2, 34):
            self.add(place, "grey")
        self.board = Board.objects.get(pk=self.board.pk)
        self.assertEqual(len(self.board.history), 30)
        while self.board.step_back(None):
            pass
        self.assertEqual(len(self.pegs()), 3, "of 33 the newest 30 were taken back")

    def test_a_change_that_is_not_remembered_raises_the_version(self):
        before = self.board.version
        self.add(2, "blue", remember=False)
        board = Board.objects.get(pk=self.board.pk)
        self.assertEqual((board.version, board.history), (before + 1, []))
        self.assertIsNone(board.last_change)

    def test_who_made_the_last_change_and_when(self):
        self.add(2, "blue")
        who, key, when = Board.objects.get(pk=self.board.pk).last_change
        self.assertEqual((who, key), (self.user.shown_name, self.user.pk))
        self.assertLess(timezone.now() - when, timedelta(minutes=1))

    def test_a_fault_within_leaves_everything_as_it_was(self):
        with self.assertRaises(ZeroDivisionError), self.board.changing(None, self.user) as board:
            board.pegs.create(place=9, color="pink")
            _ = 1 / 0
        board = Board.objects.get(pk=self.board.pk)
        self.assertEqual((self.pegs(), board.history), ([(1, "red")], []))

    def test_what_became_of_the_rows_since_a_version(self):
        at = self.board.version
        self.add(2, "blue")
        with self.board.changing(None, self.user) as board:
            board.pegs.filter(place=1).update(color="green")
        with self.board.changing(None, self.user) as board:
            board.pegs.filter(place=2).delete()
        board = Board.objects.get(pk=self.board.pk)
        self.assertEqual(board.changed_since(at), ["red at 1 → green at 1"])
        self.assertEqual(
            board.changed_since(at + 1), ["red at 1 → green at 1", "taken out: blue at 2"]
        )
        self.assertEqual(board.changed_since(board.version), [])
        self.add(5, "gold")
        board = Board.objects.get(pk=self.board.pk)
        self.assertEqual(board.changed_since(board.version - 1), ["added: gold at 5"])


class Stale(KeptCase):
    def test_a_change_of_an_older_version_is_refused_and_writes_nothing(self):
        shown = self.board.version
        self.add(2, "blue", shown)
        with self.assertRaises(StaleSave) as refused:
            self.add(3, "green", shown)
        self.assertEqual(refused.exception.current.version, shown + 1)
        self.assertEqual(self.pegs(), [(1, "red"), (2, "blue")])
        with self.assertRaises(StaleSave):
            self.board.step_back(shown)

    def test_a_second_click_of_the_same_page_is_no_conflict(self):
        shown = self.board.version
        self.add(2, "blue", shown, "page-a")
        self.add(3, "green", shown, "page-a")
        with self.assertRaises(StaleSave):
            self.add(4, "grey", shown, "page-b")
        self.add(4, "grey", shown + 2, "page-b")
        with self.assertRaises(StaleSave):
            self.add(5, "white", shown, "page-a")

    def test_save_over(self):
        first, second = (Board.objects.get(pk=self.board.pk) for _ in range(2))
        first.name, second.name = "mast", "keel"
        first.save_over(1)
        with self.assertRaises(StaleSave):
            second.save_over(1)
        board = Board.objects.get(pk=self.board.pk)
        self.assertEqual((board.name, board.version), ("mast", 2))
        second.save_over(2)
        self.assertEqual(Board.objects.get(pk=self.board.pk).version, 3)

    def test_every_save_raises_the_version_whoever_calls_it(self):
        self.board.name = "stern"
        self.board.save()
        self.board.save(update_fields=["name"])
        self.assertEqual(Board.objects.get(pk=self.board.pk).version, 3)

    def test_what_a_form_carries(self):
        for text, version in (
            (None, None),
            ("7", 7),
            ("", 0),
            ("x", 0),
            ("-1", 0),
            ("٣", 0),
            ("1234567890", 0),
        ):
            self.assertEqual(version_in(text), version)
        request = RequestFactory().post("/", headers={"Page-Id": "p" * 50})
        self.assertEqual(page_in(request), "p" * 40)


class PutAway(KeptCase):
    def test_taken_away_it_is_in_no_list_and_comes_back(self):
        heard = []

        def hear(sender, instance, **_more):
            heard.append(instance.removed is not None)

        put_away_or_back.connect(hear, sender=Board)
        self.addCleanup(put_away_or_back.disconnect, hear, sender=Board)
        version = self.board.version
        self.board.remove(self.user)
        self.assertFalse(Board.objects.filter(pk=self.board.pk).exists())
        away = Board.with_removed.get(pk=self.board.pk)
        self.assertEqual((away.removed_by, away.version), (self.user, version + 1))
        away.bring_back()
        back = Board.objects.get(pk=self.board.pk)
        self.assertEqual((back.removed, back.removed_by), (None, None))
        self.assertEqual(heard, [True, False])

    def test_it_is_offered_again_for_thirty_days(self):
        for days, offered in ((29, True), (31, False)):
            when = timezone.now() - timedelta(days=days)
            Board.with_removed.filter(pk=self.board.pk).update(removed=when)
            self.assertEqual(offered_back(Board.with_removed).exists(), offered)

    def test_archived_it_keeps_its_version(self):
        version = self.board.version
        self.board.archive(True)
        away = Board.objects.get(pk=self.board.pk)
        self.assertIsNotNone(away.archived)
        self.assertEqual(away.version, version)
        away.archive(False)
        self.assertIsNone(Board.objects.get(pk=self.board.pk).archived)


class Uses(KeptCase):
    def test_later_stages_say_where_it_is_used_and_what_moves(self):
        with patch.object(USES, "_known", []), patch.object(MOVES, "_known", []):
            USES.answered_by(lambda one: counted(2, "wall"), Board)
            USES.answered_by(lambda one: "", Board)
            USES.answered_by(lambda one: "never asked", User)
            MOVES.answered_by(lambda before, after: ["the nails move"], Board)
            self.assertEqual(uses_of(self.board), ["2 walls"])
            self.assertEqual(moves_of(self.board, self.board), ["the nails move"])

    def test_counted_in_words(self):
        self.assertEqual([counted(n, "bowl") for n in (0, 1, 2)], ["", "1 bowl", "2 bowls"])
        self.assertEqual(some([], "bowl"), "")
        self.assertEqual(some(["A"], "bowl"), "1 bowl: A")
        self.assertEqual(some(list("ABCDEF"), "bowl"), "6 bowls: A, B, C, D and 2 more")


class SentTwice(KeptCase):
    def setUp(self):
        super().setUp()
        cache.clear()
        self.done = []

    def send(self, response, key="k", name="oar"):
        def view(request):
            self.done.append(request.POST["name"])
            return response()

        headers = {"Form-Key": key, "HX-Request": "true"} if key else {}
        request = RequestFactory().post("/boards/", {"name": name}, headers=headers)
        request.COOKIES["sessionid"] = "one"
        return OnceMiddleware(view)(request)

    def test_the_second_is_answered_as_the_first(self):
        for _ in range(2):
            answer = self.send(lambda: HttpResponseRedirect("/boards/1/"))
            self.assertEqual(answer["Location"], "/boards/1/")
        self.assertEqual(self.done, ["oar"])

    def test_a_page_that_was_answered_needs_no_more(self):
        self.assertEqual(self.send(lambda: HttpResponse("ok")).status_code, 200)
        self.assertEqual(self.send(lambda: HttpResponse("ok")).status_code, 204)

    def test_what_was_refused_or_differs_is_worked_off(self):
        for _ in range(2):
            self.send(lambda: HttpResponse(status=400))
        self.send(lambda: HttpResponse("ok"), name="mast")
        self.send(lambda: HttpResponse("ok"), key="other", name="mast")
        self.assertEqual(self.done, ["oar", "oar", "mast", "mast"])

    def test_a_fault_may_be_sent_again(self):
        def broken():
            raise ZeroDivisionError

        for _ in range(2):
            with self.assertRaises(ZeroDivisionError):
                self.send(broken)
        self.assertEqual(len(self.done), 2)

    def test_without_any_key_each_counts(self):
        for _ in range(2):
            self.send(lambda: HttpResponse("ok"), key="")
        self.assertEqual(len(self.done), 2)


class InPassing(KeptCase):
    def test_it_is_given_up_where_somebody_else_writes(self):
        def locked():
            raise OperationalError("database is locked")

        self.assertFalse(note_in_passing(locked))
        note = Board.objects.filter(pk=self.board.pk)
        self.assertTrue(note_in_passing(lambda: note.update(name="noted")))
        self.assertEqual(note.get().name, "noted")
