"""What the application writes down of itself, a JSON object a line: which address by its name, how
long it took, what failed and where. Nothing that somebody typed or that stands on a page."""

from __future__ import annotations

import logging
import logging.handlers
import os
import time
import traceback
from collections.abc import Callable
from pathlib import Path
from typing import Any
from uuid import uuid4

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from pythonjsonlogger.json import JsonFormatter

asked = logging.getLogger("roundpantry.asked")
# So much of the log of errors is kept. [bytes, files]
ERRORS_BYTES, ERRORS_FILES = 1_000_000, 3
# What the framework knows of a request: only where it went.
OF_FRAMEWORK = ("django.request", "django.security", "django.server")


def route_of(request: Any) -> str:
    """The name of an address; never what stands in it."""
    match = getattr(request, "resolver_match", None)
    return match.view_name if match is not None else "unknown"


def _places_of(trace: Any) -> list[str]:
    """Where an error came from: files and lines, without the values that were there."""
    root = str(settings.BASE_DIR)
    return [
        f"{frame.filename.removeprefix(root)}:{frame.lineno} {frame.name}"
        for frame in traceback.extract_tb(trace)
    ][-12:]


class WithoutData(JsonFormatter):
    """A record as JSON. The words of an error may hold what somebody typed: they are left out, its
    kind and its places are not."""

    def process_log_record(self, log_record: dict[str, Any]) -> dict[str, Any]:
        return {name: value for name, value in log_record.items() if value not in (None, "")}

    def format(self, record: logging.LogRecord) -> str:
        plain = logging.LogRecord(
            record.name, record.levelno, record.pathname, record.lineno, "", (), None
        )
        told: dict[str, Any] = {
            "at": self.formatTime(record, "%Y-%m-%dT%H:%M:%S%z"),
            "level": record.levelname,
            "of": record.name,
        }
        if record.name.startswith(OF_FRAMEWORK) or hasattr(record, "request"):
            first = record.args[0] if isinstance(record.args, tuple) and record.args else record.msg
            told["said"] = str(first)[:60]
            told["route"] = route_of(getattr(record, "request", None))
            told["status"] = getattr(record, "status_code", None)
        else:
            # the words as they stand in our code; what was put into them only where it is a number
            # or one of our names
            told["said"] = record.msg if not record.args else _filled(record)
        told |= getattr(record, "told", {})
        if record.exc_info and record.exc_info[0] is not None:
            told["error"] = record.exc_info[0].__name__
            told["where"] = _places_of(record.exc_info[2])
        plain.msg = told
        return super().format(plain)


def _filled(record: logging.LogRecord) -> str:
    args = record.args if isinstance(record.args, tuple) else ()
    safe = tuple(one if isinstance(one, int | float) else str(one)[:40] for one in args)
    try:
        return str(record.msg) % safe
    except (TypeError, ValueError):
        return str(record.msg)


class Errors(logging.handlers.RotatingFileHandler):
    """The errors in a file of their own, for the page of the owners; its user's alone."""

    def __init__(self) -> None:
        path = Path(settings.VAR_DIR) / "errors.jsonl"
        super().__init__(path, maxBytes=ERRORS_BYTES, backupCount=ERRORS_FILES, delay=True)
        self.setLevel(logging.ERROR)

    def _open(self) -> Any:
        there = os.open(self.baseFilename, os.O_WRONLY | os.O_APPEND | os.O_CREAT, 0o600)
        return os.fdopen(there, "a", encoding="utf-8")

    def handleError(self, record: logging.LogRecord) -> None:  # noqa: N802
        # a disk that is full is said elsewhere; the page goes on
        pass


class AskedMiddleware:
    """A line for each request, and the number that it has in the log and on an error's page."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        number, began = uuid4().hex[:12], time.monotonic()
        request.number = number  # type: ignore[attr-defined]
        response = self.get_response(request)
        response["Request-Number"] = number
        user = getattr(request, "user", None)
        asked.info(
            "asked",
            extra={
                "told": {
                    "route": route_of(request),
                    "method": request.method,
                    "status": response.status_code,
                    "ms": round((time.monotonic() - began) * 1000),
                    "who": getattr(user, "pk", None),
                    "number": number,
                }
            },
        )
        return response
