"""Portions that meet targets, for a problem in a file."""

from nutrition.requests.balance import BalanceAsked, read_problem
from nutrition.requests.balance_answer import BalanceAnswer, as_text, solve
from nutrition.requests.derivations import of_answer
from nutrition.requests.structure import Told
from webkit.command_file import FileCommand, read_given


class Command(FileCommand):
    help = (
        "Choose portions that meet targets, for parts and targets in a JSON file. Exit "
        "status 1 for a problem that cannot be posed."
    )
    asked, answered = BalanceAsked, BalanceAnswer
    file_help = "the problem in JSON"
    why_help = "with JSON, where one number of it comes from"
    seconds_help = "how long it may look (0.13 for a bowl, 0.85 for a day)"
    names_the_field = False

    def answer_to(self, given: object, why: str, seconds: float | None) -> tuple[Told, str]:
        problem = read_problem(given, read_given)
        answer = solve(problem, seconds)
        words = as_text(problem, answer)
        if why:
            derived = {why: of_answer(problem, answer.portions, why)}
            answer = answer.model_copy(update={"why": derived})
        return answer, words
