"""Weighing in from a body scale on the machine of whoever looks at the page."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from django.conf import settings


def body_scale(_page: Mapping[str, Any]) -> dict[str, Any]:
    """Where the scale, or the bridge to it, speaks: see docs/scale.md."""
    return {"scale_address": f"ws://127.0.0.1:{settings.BODY_SCALE_PORT}/"}
