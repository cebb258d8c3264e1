"""Django's test runner, with the closing line that scripts read."""

import logging

from django.test.runner import DiscoverRunner


class CountingRunner(DiscoverRunner):
    """Prints "N passed, N failed" from the real counts at the end, and keeps expected refusals out
    of the output."""

    def setup_test_environment(self, **kwargs):
        super().setup_test_environment(**kwargs)
        for name in ("django.request", "axes"):
            logging.getLogger(name).setLevel(logging.CRITICAL)

    def suite_result(self, suite, result, **kwargs):
        # a test with failing subtests is one failed test
        failed = {
            getattr(test, "test_case", test).id()
            for test, _trace in (*result.failures, *result.errors)
        }
        failed |= {test.id() for test in result.unexpectedSuccesses}
        skipped = f", {len(result.skipped)} skipped" if result.skipped else ""
        passed = result.testsRun - len(failed) - len(result.skipped)
        self.closing = f"{passed} passed, {len(failed)} failed{skipped}"
        return super().suite_result(suite, result, **kwargs)

    def run_tests(self, *args, **kwargs):
        failures = super().run_tests(*args, **kwargs)
        print(self.closing)
        return failures
