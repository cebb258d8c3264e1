"""python -m roundpantry.serve: the application served to a proxy on this machine, one server a
database."""

from __future__ import annotations

import argparse
import os
import sys
from typing import Any


def main() -> int:
    asked = argparse.ArgumentParser(prog="bin/serve", description=__doc__)
    asked.add_argument("--listen", default="127.0.0.1:8000", help="address and port")
    asked.add_argument("--threads", type=int, default=4)
    given = asked.parse_args()
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "roundpantry.settings")
    import django
    from django.conf import settings

    django.setup()
    from running import holding, secure

    wrong = secure.faults()
    if settings.DEMO and not given.listen.startswith(("127.0.0.1:", "localhost:", "[::1]:")):
        wrong.append("Everybody knows the demo's password: it is served to this machine alone.")
    if wrong:
        print("It is not started:", *(f"  {one}" for one in wrong), sep="\n", file=sys.stderr)
        return 1
    from running.steps import not_done

    try:
        with holding.serving():
            if steps := not_done():
                print(
                    f"It is not started: the database is {len(steps)} steps behind. bin/upgrade "
                    "makes a backup and takes them.",
                    file=sys.stderr,
                )
                return 1
            _serve(given.listen, given.threads)
    except holding.Held as error:
        print(f"It is not started: {error}", file=sys.stderr)
        return 1
    return 0


def _serve(listen: str, threads: int) -> None:
    from django.conf import settings
    from waitress import serve

    from roundpantry.wsgi import application

    # a proxy on this machine says where a request comes from, and that it came by TLS; in the demo
    # there is none, and what says so is seen for what it is
    proxy: dict[str, Any] = {
        "trusted_proxy": "127.0.0.1",
        "trusted_proxy_headers": {"x-forwarded-for", "x-forwarded-proto"},
        "clear_untrusted_proxy_headers": True,
    }
    if settings.DEMO:
        proxy = {"clear_untrusted_proxy_headers": False}
    serve(
        application,
        listen=listen,
        threads=threads,
        max_request_body_size=3_000_000,
        ident=None,
        **proxy,
    )


if __name__ == "__main__":
    sys.exit(main())
