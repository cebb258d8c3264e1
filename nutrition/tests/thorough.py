"""Tests that look at everything and take their time: the runner leaves them out of a quick run."""


def thorough(test):
    """Marks a test, or a class of them, that only the whole run of `bin/test` takes."""
    test.tags = {"thorough"}
    return test
