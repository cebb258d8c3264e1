"""A week of dishes for a person in a file."""

from nutrition.requests.structure import Told
from nutrition.requests.week import WeekAsked, read_week
from nutrition.requests.week_answer import WeekAnswer, as_text, solve
from webkit.command_file import FileCommand, read_given


class Command(FileCommand):
    help = (
        "Plan a week: what stands in each slot of each day, and what is cooked when, for a person "
        "and dishes in a JSON file. Exit status 1 for a week that cannot be posed."
    )
    asked, answered = WeekAsked, WeekAnswer
    file_help = "the week in JSON"
    seconds_help = "how long it may look (usually about 4)"
    names_the_field = False

    def answer_to(self, given: object, why: str, seconds: float | None) -> tuple[Told, str]:
        week = read_week(given, read_given)
        answer = solve(week, seconds)
        return answer, as_text(week, answer)
