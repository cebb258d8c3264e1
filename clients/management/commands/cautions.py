"""What is to be warned of for a person and what they eat, in a file."""

from nutrition.requests.cautions import CautionsAnswer, CautionsAsked, as_text, report
from nutrition.requests.structure import Told
from webkit.command_file import FileCommand


class Command(FileCommand):
    help = (
        "Print what is to be warned of for a person and their meals in a JSON file: "
        '{"person": {... as for targets ...}, "meals": [["1 cup cooked rice", ...], ...]}. '
        "Exit status 1 for impossible input."
    )
    asked, answered = CautionsAsked, CautionsAnswer
    file_help = "the person and meals in JSON"

    def answer_to(self, given: object, why: str, seconds: float | None) -> tuple[Told, str]:
        answer = report(given)
        return answer, as_text(answer)
