"""bin/manage work: works on the searches and other long work that pages ask for."""

import os
import signal
import time
from contextlib import ExitStack

from django.core.management.base import BaseCommand, CommandParser

from jobs.chores import do_what_is_due
from jobs.work import HELD, work_off

# So often it looks whether something waits. [s]
LOOKS = 0.3
# ... and so often for what is done again and again. [s]
CHORES = 20


class Command(BaseCommand):
    help = "Work on the searches and other long work that pages ask for, until it is stopped."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument(
            "--with-parent",
            type=int,
            metavar="PID",
            help="End when this process, which started it, is gone.",
        )

    def handle(self, *args: object, **options: object) -> None:
        # the solver is slow to load: it is there before the first search
        import nutrition.planning.model  # noqa: F401

        # given, and not asked for here: it may be gone before this has begun
        parent, stopped = options["with_parent"], []
        for name in (signal.SIGTERM, signal.SIGINT):
            signal.signal(name, lambda *_: stopped.append(True))

        def over() -> bool:
            return bool(stopped) or (parent is not None and os.getppid() != parent)

        looked = 0.0

        def rest() -> None:
            nonlocal looked
            if time.monotonic() - looked > CHORES:
                looked = time.monotonic()
                do_what_is_due()
            time.sleep(LOOKS)

        with ExitStack() as held:
            for hold in HELD.ask():
                held.enter_context(hold)
            work_off(over, rest)
