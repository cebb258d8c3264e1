"""Django's test runner, with the closing line that scripts read."""

import logging

from django.conf import settings
from django.test.runner import DiscoverRunner

from roundpantry.warm_up import warm

FAST_HASHER = "django.contrib.auth.hashers.MD5PasswordHasher"


def _why(trace: str) -> str:
    """The last place in a trace that is of the project, and the first line of what was said."""
    lines = trace.strip().splitlines()
    places = [at for at, line in enumerate(lines) if line.startswith('  File "')]
    ours = [lines[at] for at in places if "site-packages" not in lines[at]]
    said = next((line for line in lines[places[-1] :] if line[:1].strip()), "") if places else trace
    return " ".join([*(" ".join(line.split()) for line in ours[-1:]), said])[:400]


class CountingRunner(DiscoverRunner):
    """Prints at the end what failed, a line each, and "N passed, N failed" from the real counts;
    keeps expected refusals out of the output."""

    def setup_test_environment(self, **kwargs):
        super().setup_test_environment(**kwargs)
        for name in ("django.request", "django.security", "roundpantry.asked"):
            logging.getLogger(name).setLevel(logging.CRITICAL)
        # the demo is what they sign in to
        settings.DEMO = True
        # hundreds of people are made who never sign in
        settings.PASSWORD_HASHERS = [FAST_HASHER]
        warm()

    def suite_result(self, suite, result, **kwargs):
        # a test with failing subtests is one failed test
        failed = {
            getattr(test, "test_case", test).id(): _why(trace)
            for test, trace in (*result.failures, *result.errors)
        }
        failed |= {test.id(): "passed unexpectedly" for test in result.unexpectedSuccesses}
        skipped = f", {len(result.skipped)} skipped" if result.skipped else ""
        passed = result.testsRun - len(failed) - len(result.skipped)
        self.closing = [f"FAILED: {name}: {why}" for name, why in failed.items()]
        self.closing.append(f"{passed} passed, {len(failed)} failed{skipped}")
        return super().suite_result(suite, result, **kwargs)

    def run_tests(self, *args, **kwargs):
        failures = super().run_tests(*args, **kwargs)
        print(*self.closing, sep="\n")
        return failures
