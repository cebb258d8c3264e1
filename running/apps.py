"""An installation that runs."""

from django.apps import AppConfig


class RunningConfig(AppConfig):
    name = "running"

    def ready(self) -> None:
        import running.secure  # noqa: F401
        from jobs import chores
        from jobs.work import HELD
        from practice.places import MORE
        from running import holding, nightly

        HELD.answered_by(holding.working)
        MORE.filled_by("running/_of_practice.html", 3)
        chores.nightly("backup", nightly.back_up)
        chores.nightly("the database is whole", nightly.look_through)
        chores.nightly("what is over", nightly.tidy)
