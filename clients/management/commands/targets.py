"""A day's targets for a person in a file."""

from django.core.management.base import CommandError

from nutrition.requests.day import DayAnswer, as_text, report
from nutrition.requests.derivations import of_target
from nutrition.requests.person import PersonGiven, read_asked
from nutrition.requests.structure import Told
from webkit.command_file import FileCommand


class Command(FileCommand):
    help = (
        "Print a day's targets, meals, disagreements and cautions for a person in a JSON "
        "file. Exit status 1 for impossible input."
    )
    asked, answered = PersonGiven, DayAnswer
    file_help = "the person in JSON"
    why_help = "with JSON, where one number of it comes from"

    def answer_to(self, given: object, why: str, seconds: float | None) -> tuple[Told, str]:
        asked = read_asked(given)
        answer = report(asked)
        words = as_text(answer)
        if why and why not in answer.targets:
            raise CommandError(f"--why {why}: this day has no such target.")
        if why:
            answer = answer.model_copy(update={"why": {why: of_target(answer, why)}})
        if asked.ignored:
            self.stderr.write(f"Not understood, and left out: {', '.join(asked.ignored)}.")
        return answer, words
