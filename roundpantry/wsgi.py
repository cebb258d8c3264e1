"""The WSGI entry point."""

import os

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "roundpantry.settings")
application = get_wsgi_application()

from roundpantry.warm_up import warm  # noqa: E402

warm()
