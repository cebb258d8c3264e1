"""When each step of some dishes is done, so that all is ready at the wanted time."""

from datetime import date

from nutrition.requests.structure import Told
from nutrition.requests.timeline import TimelineAsked, read_timeline
from nutrition.requests.timeline_answer import TimelineAnswer, as_text, solve
from webkit.command_file import FileCommand


class Command(FileCommand):
    help = (
        "Put the steps of dishes in order for one kitchen, so that all is ready at the wanted "
        "time: what is done when, where, at which heat. Exit status 1 for what cannot be posed."
    )
    asked, answered = TimelineAsked, TimelineAnswer
    file_help = "the dishes, the kitchen and the wanted time in JSON"
    seconds_help = "how long it may look (usually about 4)"
    names_the_field = False

    def answer_to(self, given: object, why: str, seconds: float | None) -> tuple[Told, str]:
        asked = read_timeline(given, date.today())
        answer = solve(asked, seconds)
        return answer, as_text(asked, answer)
