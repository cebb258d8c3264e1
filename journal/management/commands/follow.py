"""How a person does who is followed, in a file."""

from nutrition.requests.follow import FollowAsked
from nutrition.requests.follow_answer import FollowAnswer, as_text, report
from nutrition.requests.structure import Told
from webkit.command_file import FileCommand


class Command(FileCommand):
    help = (
        "Print how the weight stands and why, and what blood values mean, for a person in a JSON "
        'file: {"person": {... as for targets ...}, "weighed": [{"on": "2026-11-03", "kg": 101.4}, '
        '...], "days": [{"on": ..., "meals": [[line, ...], ...]}], "happened": [...], "blood": '
        "[...]}. Exit status 1 for impossible input."
    )
    asked, answered = FollowAsked, FollowAnswer
    file_help = "the record in JSON"

    def answer_to(self, given: object, why: str, seconds: float | None) -> tuple[Told, str]:
        answer = report(given)
        return answer, as_text(answer)
