"""Following a client."""

from django.apps import AppConfig


class JournalConfig(AppConfig):
    name = "journal"

    def ready(self) -> None:
        from django.db.models.signals import post_delete, post_save

        from clients.plan.agreed import says_agreed
        from clients.plan.attention import attends
        from clients.plan.cautions import knows_more, tells_always
        from clients.plan.looks import after_saving
        from journal.attends import agreed, numbers_of_the_habit, numbers_of_the_log, to_attend
        from practice.removal import put_away_or_back

        attends(to_attend)
        says_agreed(agreed)
        knows_more(numbers_of_the_log)
        tells_always(numbers_of_the_habit)
        for name in ("LoggedDay", "Happening", "TakenChange", "Visit"):
            model = self.get_model(name)
            post_save.connect(after_saving, sender=model)
            post_delete.connect(after_saving, sender=model)
            put_away_or_back.connect(after_saving, sender=model)
