"""Settings. Everything that differs between installations comes from the environment."""

import os
from pathlib import Path

from csp.constants import NONE, SELF
from django.core.management.utils import get_random_secret_key

BASE_DIR = Path(__file__).resolve().parent.parent
VAR_DIR = Path(os.environ.get("ROUNDPANTRY_VAR", BASE_DIR / "var"))
VAR_DIR.mkdir(mode=0o700, parents=True, exist_ok=True)


def _secret_key() -> str:
    """From the environment, or made once and kept beside the database, readable by its owner
    only."""
    if "ROUNDPANTRY_SECRET_KEY" in os.environ:
        return os.environ["ROUNDPANTRY_SECRET_KEY"]
    path = VAR_DIR / "secret-key"
    if not path.exists():
        path.touch(mode=0o600)
        path.write_text(get_random_secret_key())
    return path.read_text().strip()


SECRET_KEY = _secret_key()
DEBUG = os.environ.get("ROUNDPANTRY_DEBUG") == "1"
# ... and the machine itself, which asks whether it is well
ALLOWED_HOSTS = [
    *os.environ.get("ROUNDPANTRY_HOSTS", "localhost,testserver").split(","),
    "127.0.0.1",
]

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.messages",
    "whitenoise.runserver_nostatic",
    "django.contrib.staticfiles",
    "csp",
    "rules.apps.AutodiscoverRulesConfig",
    "django_otp",
    "django_otp.plugins.otp_totp",
    "django_otp.plugins.otp_static",
    "django_otp_webauthn",
    "django_htmx",
    "roundpantry",
    "webkit",
    "record",
    "practice",
    "people",
    "jobs",
    "paper",
    "schools",
    "clients",
    "pantry",
    "changes",
    "recipes",
    "bowls",
    "planner",
    "week",
    "shopping",
    "kitchen",
    "journal",
    "plates",
    "handouts",
    "exchange",
    "shared_with",
    "finder",
    "rights",
    "running",
    "demo",
    # its templates come last, so that ours stand over them
    "django.forms",
]
MIDDLEWARE = [
    "running.logs.AskedMiddleware",
    "practice.middleware.WellFormedMiddleware",
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "csp.middleware.CSPMiddleware",
    "practice.middleware.GoToMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django_otp.middleware.OTPMiddleware",
    "practice.middleware.NoStoreMiddleware",
    "people.middleware.RestMiddleware",
    "practice.middleware.SignedInMiddleware",
    "practice.resubmission.OnceMiddleware",
    "django.contrib.messages.middleware.MessageMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "django_htmx.middleware.HtmxMiddleware",
    "practice.middleware.PracticeScopeMiddleware",
    "pantry.in_force.OwnFoodsMiddleware",
    "clients.pages.context.ClientInAddressMiddleware",
    "people.middleware.AllowedMiddleware",
]
ROOT_URLCONF = "roundpantry.urls"
WSGI_APPLICATION = "roundpantry.wsgi.application"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "APP_DIRS": True,
        "OPTIONS": {
            "context_processors": [
                "django.template.context_processors.request",
                "django.contrib.auth.context_processors.auth",
                "django.contrib.messages.context_processors.messages",
                "clients.pages.context.page_client",
                "roundpantry.stages.stages",
            ],
        },
    }
]
# a field says how much it holds and cuts nothing: templates/django/forms/widgets/attrs.html
FORM_RENDERER = "django.forms.renderers.TemplatesSetting"


def _private(path: Path) -> Path:
    """A file that its owner alone reads, made so before anything is written into it; what SQLite
    puts beside it is as private."""
    path.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
    if not path.exists():
        path.touch(mode=0o600)
    elif path.stat().st_uid == os.getuid() and path.stat().st_mode & 0o077:
        path.chmod(0o600)
    return path


# A change waits so long for its turn. [s]
TURN = 30
DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        # kept open between requests: opening it anew costs more than most of what is asked of it
        "CONN_MAX_AGE": 600,
        "NAME": _private(Path(os.environ.get("ROUNDPANTRY_DB", VAR_DIR / "roundpantry.sqlite3"))),
        # a page that is read takes no lock; a change is one short transaction, which takes the
        # write lock when it begins, and waits long enough that everybody has a turn. Where a change
        # begins and ends: practice/undo.py and practice/versioned.py
        "OPTIONS": {
            "transaction_mode": "IMMEDIATE",
            "timeout": TURN,
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA "
            "foreign_keys=ON; PRAGMA secure_delete=ON;",
        },
        # a file, so that the server under a browser test has connections of its own, as the real
        # one has
        "TEST": {"NAME": VAR_DIR / "test.sqlite3"},
    }
}
# ... but a note that is made in passing does not wait at all (practice/passing_notes.py): what says
# so to this database, and what takes it back; empty for one that needs no such word
GIVE_UP_AT_ONCE = "PRAGMA busy_timeout = 0"
WAIT_AS_USUAL = f"PRAGMA busy_timeout = {TURN * 1000}"
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTH_USER_MODEL = "practice.User"
AUTHENTICATION_BACKENDS = [
    "rules.permissions.ObjectPermissionBackend",
    "django_otp_webauthn.backends.WebAuthnBackend",
    "django.contrib.auth.backends.ModelBackend",
]
PASSWORD_HASHERS = ["django.contrib.auth.hashers.Argon2PasswordHasher"]
AUTH_PASSWORD_VALIDATORS = [
    {
        "NAME": "django.contrib.auth.password_validation.MinimumLengthValidator",
        "OPTIONS": {"min_length": 10},
    },
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
    {"NAME": "people.passwords.NotOfTheDemo"},
]
LOGIN_URL = "sign-in"
LOGIN_REDIRECT_URL = "clients:list"
LOGOUT_REDIRECT_URL = "sign-in"
# a link to a new password holds for a day [s]
PASSWORD_RESET_TIMEOUT = 86_400
# a session lasts so long however it is used, and ends at rest before (people/sessions.py) [s]
SESSION_COOKIE_AGE = 14 * 86_400
# what the demo prints: it opens nothing but the demo, from this machine
DEMO = os.environ.get("ROUNDPANTRY_DEMO") == "1"
DEMO_PASSWORDS = ("tern-point-kettle", "gull-rock-ladle")

# a passkey belongs to the name of a site: the first host that is one, and no number
OTP_WEBAUTHN_RP_ID = next(
    (host for host in ALLOWED_HOSTS if "." in host and not host.rpartition(".")[2].isdigit()), ""
)
OTP_WEBAUTHN_RP_NAME = "Round Pantry"
OTP_WEBAUTHN_ALLOWED_ORIGINS = [f"https://{OTP_WEBAUTHN_RP_ID}"] if OTP_WEBAUTHN_RP_ID else []
OTP_TOTP_ISSUER = "Round Pantry"

# no backup is kept for longer: whoever is erased is gone from all of them by then [days]
BACKUPS_KEPT_DAYS = 190

# mail as the environment says, and to the console where it says nothing
EMAIL_HOST = os.environ.get("ROUNDPANTRY_MAIL_HOST", "")
EMAIL_PORT = int(os.environ.get("ROUNDPANTRY_MAIL_PORT", "25"))
EMAIL_HOST_USER = os.environ.get("ROUNDPANTRY_MAIL_USER", "")
EMAIL_HOST_PASSWORD = os.environ.get("ROUNDPANTRY_MAIL_PASSWORD", "")
EMAIL_USE_TLS = os.environ.get("ROUNDPANTRY_MAIL_TLS") == "1"
EMAIL_TIMEOUT = 10
DEFAULT_FROM_EMAIL = os.environ.get("ROUNDPANTRY_MAIL_FROM", "roundpantry@localhost")
EMAIL_BACKEND = f"django.core.mail.backends.{'smtp' if EMAIL_HOST else 'console'}.EmailBackend"

TEST_RUNNER = "roundpantry.runner.CountingRunner"

LANGUAGE_CODE = "en-us"
# one language is built in (docs/decisions/0016): nothing is looked up by language at every word
USE_I18N = False
TIME_ZONE = os.environ.get("ROUNDPANTRY_TIME_ZONE", "America/New_York")
USE_TZ = True
STATIC_URL = "/static/"
WHITENOISE_USE_FINDERS = True
WHITENOISE_MAX_AGE = 60

SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
CSRF_COOKIE_SAMESITE = "Lax"
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
if os.environ.get("ROUNDPANTRY_HTTPS") == "1":
    SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = SECURE_SSL_REDIRECT = True
    SECURE_REDIRECT_EXEMPT = [r"^health/$", r"^ready/$"]
    SECURE_HSTS_SECONDS = 31_536_000

# Where a scale, or the bridge to one, speaks on the machine of whoever looks at the page.
SCALE_PORT, BODY_SCALE_PORT = 8137, 8138
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [NONE],
        "script-src": [SELF],
        "style-src": [SELF],
        "img-src": [SELF, "data:"],
        "font-src": [SELF],
        "connect-src": [
            SELF,
            f"ws://127.0.0.1:{SCALE_PORT}",
            f"ws://127.0.0.1:{BODY_SCALE_PORT}",
        ],
        "form-action": [SELF],
        "base-uri": [NONE],
        "frame-ancestors": [NONE],
    }
}
DATA_UPLOAD_MAX_MEMORY_SIZE = 1_000_000
DATA_UPLOAD_MAX_NUMBER_FIELDS = 1_000
DATA_UPLOAD_MAX_NUMBER_FILES = 200
CSRF_FAILURE_VIEW = "practice.views.form_refused"
# without a name of its own a site has no passkeys
SILENCED_SYSTEM_CHECKS = [] if OTP_WEBAUTHN_RP_ID else ["otp_webauthn.E010", "otp_webauthn.E030"]
# outside the demo each line is JSON, without what anybody typed (running/logs.py)
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {"plain": {}, "without_data": {"()": "running.logs.WithoutData"}},
    "handlers": {
        "console": {
            "class": "logging.StreamHandler",
            "formatter": "plain" if DEMO else "without_data",
        },
        "errors": {"()": "running.logs.Errors", "formatter": "without_data"},
    },
    "root": {"handlers": ["console", "errors"], "level": "WARNING"},
    "loggers": {
        "roundpantry.asked": {"level": "WARNING" if DEMO else "INFO"},
        "django": {"handlers": [], "level": "WARNING", "propagate": True},
    },
}
