"""Settings for serving on this machine: the start and demo commands, and the tests.

Everything that differs from place to place comes from the environment; `production` builds on this.
"""

import os
from pathlib import Path

from django.core.exceptions import ImproperlyConfigured

from server.api import limits
from server.config import politeness
from server.config.database import from_url

ROOT = Path(__file__).resolve().parents[2]
PAGE = ROOT / "frontend" / "dist"
MAILS = ROOT / "server" / "entrance" / "templates"


def _secret() -> str:
    """From the environment, or from the file that set-up has made for this checkout."""
    if "SECRET_KEY" in os.environ:
        return os.environ["SECRET_KEY"]
    file = Path(os.environ.get("SECRET_KEY_FILE", ROOT / ".run" / "secret-key"))
    if not file.exists():
        raise ImproperlyConfigured(f"SECRET_KEY is not set and {file} does not exist: run ./ydro start once")
    return file.read_text().strip()


SECRET_KEY = _secret()
DEBUG = False
DEMO = os.environ.get("YDROMETER_DEMO") == "1"
LAN_HOSTS = [host for host in os.environ.get("YDROMETER_HOSTS", "").split(",") if host]
"""Addresses of this machine in its networks, where those are served."""
LAN_ORIGINS = [origin for origin in os.environ.get("YDROMETER_ORIGINS", "").split(",") if origin]
"""The same as browsers find them."""
FINGERPRINT = os.environ.get("YDROMETER_FINGERPRINT", "")
"""Of the certificate that was made on this machine, where HTTPS is spoken."""
IS_PUBLIC = False
"""Whether others find it by the name under which it was asked, as on a host."""
ALLOWED_HOSTS = ["127.0.0.1", "localhost", *LAN_HOSTS]
# Behind HTTPS the application itself hears plain HTTP.
CSRF_TRUSTED_ORIGINS = [origin for origin in LAN_ORIGINS if origin.startswith("https:")]

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "rest_framework",
    "drf_spectacular",
    "procrastinate.contrib.django",
    "server.accounts",
    "server.workshops",
    "server.pieces",
    "server.designs",
    "server.parts",
    "server.runs",
    "server.builds",
    "server.practice",
    "server.archive",
    "server.searches",
    "server.demo",
]

MIDDLEWARE = [
    "server.config.middleware.head_alone",
    "server.config.logs.request_log",
    "server.config.metrics.count_requests",
    "server.config.deadline.deadline",
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "server.config.middleware.content_security_policy",
    "server.config.middleware.page_version",
    "server.config.middleware.private",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
]

# Without a host nothing is sent: an owner, or whoever looks after the machine, makes links for a new password.
EMAIL_HOST = os.environ.get("EMAIL_HOST", "")
EMAIL_PORT = int(os.environ.get("EMAIL_PORT", "587"))
EMAIL_HOST_USER = os.environ.get("EMAIL_HOST_USER", "")
EMAIL_HOST_PASSWORD = os.environ.get("EMAIL_HOST_PASSWORD", "")
EMAIL_USE_TLS = os.environ.get("EMAIL_USE_TLS", "1") == "1"
EMAIL_TIMEOUT = 5
DEFAULT_FROM_EMAIL = os.environ.get("EMAIL_FROM", "ydrometer@localhost")
PASSWORD_RESET_TIMEOUT = 86_400

ROOT_URLCONF = "server.config.urls"
WSGI_APPLICATION = "server.config.wsgi.application"
TEMPLATES = [{"BACKEND": "django.template.backends.django.DjangoTemplates", "DIRS": [PAGE, MAILS]}]

DATABASES = {"default": from_url(os.environ.get("DATABASE_URL", "postgresql://ydrometer@127.0.0.1:5433/ydrometer"))}
CACHES = {
    "default": {"BACKEND": "django.core.cache.backends.locmem.LocMemCache", "LOCATION": "default"},
    # Who asked lately, in this process: see `RecentSession`.
    "recent": {
        "BACKEND": "django.core.cache.backends.locmem.LocMemCache",
        "LOCATION": "recent",
        "TIMEOUT": 10,
        "OPTIONS": {"MAX_ENTRIES": 1000},
    },
}
DISKS = [path for path in (ROOT, *map(Path, filter(None, [os.environ.get("YDROMETER_DATA")]))) if path.exists()]
"""Where it is written to on this machine: the checkout, and the database where that is here too."""
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

POLITENESS: int = politeness.POLITENESS
WARM_PATIENCE_S = 5.0
"""Seconds for which a request waits until the process for heavy work is warm."""
AUTH_USER_MODEL = "accounts.User"
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": f"django.contrib.auth.password_validation.{name}", "OPTIONS": options}
    for name, options in {
        "UserAttributeSimilarityValidator": {},
        "MinimumLengthValidator": {"min_length": 12},
        "CommonPasswordValidator": {},
        "NumericPasswordValidator": {},
    }.items()
]
DATA_UPLOAD_MAX_MEMORY_SIZE = limits.FORM
"""Of forms, which the page does not send; bodies are read by the parsers, up to their own limits."""
SESSION_COOKIE_SAMESITE = "Lax"
CSRF_COOKIE_SAMESITE = "Lax"
CSRF_FAILURE_VIEW = "server.api.errors.csrf_failure"
X_FRAME_OPTIONS = "DENY"

LANGUAGE_CODE = "en"
USE_I18N = False
USE_TZ = True
TIME_ZONE = "UTC"

STATIC_URL = "/static/"
STATIC_ROOT = ROOT / ".run" / "static"
STATICFILES_DIRS = [("app", PAGE)] if PAGE.exists() else []
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    "staticfiles": {"BACKEND": "whitenoise.storage.CompressedStaticFilesStorage"},
}


def _immutable(path: str, url: str) -> bool:
    """Vite puts a hash into the name of everything under assets/."""
    return "/app/assets/" in url


WHITENOISE_IMMUTABLE_FILE_TEST = _immutable

REST_FRAMEWORK = {
    "DEFAULT_AUTHENTICATION_CLASSES": ["server.api.authentication.SessionAuthentication"],
    "DEFAULT_PERMISSION_CLASSES": ["rest_framework.permissions.IsAuthenticated"],
    "DEFAULT_PARSER_CLASSES": ["server.api.parsers.LimitedJSONParser"],
    "DEFAULT_RENDERER_CLASSES": ["server.api.renderers.JSONRenderer"],
    "DEFAULT_SCHEMA_CLASS": "drf_spectacular.openapi.AutoSchema",
    "EXCEPTION_HANDLER": "server.api.errors.handle",
    "COERCE_DECIMAL_TO_STRING": False,
}
SPECTACULAR_SETTINGS = {
    "TITLE": "Ydrometer",
    "VERSION": "1",
    "SERVE_INCLUDE_SCHEMA": False,
    "COMPONENT_SPLIT_REQUEST": True,
    "ENUM_NAME_OVERRIDES": {
        "RoleEnum": "server.workshops.models.Role",
        "FileStateEnum": "server.runs.models.FileState",
        "LoopFormEnum": "ydrometer.document.stages.plane.LOOP_FORMS",
        "LoadStateEnum": "ydrometer.loads.rows.STATES",
        "BookletStateEnum": "server.builds.models.BookletState",
        "AskKindEnum": "ydrometer.screens.practised.ASK_KINDS",
        "ExerciseKindEnum": "server.practice.requests.KIND_NAMES",
        "StartEnum": "ydrometer.starting.starts.KEYS",
        "PurchaseStateEnum": "ydrometer.build.purchase.PURCHASE_STATES",
    },
}

PROCRASTINATE_WORKER_DEFAULTS = {
    "concurrency": 1,
    "delete_jobs": "always",
    "update_heartbeat_interval": 3.0,
    "stalled_worker_timeout": 12.0,
}

SILENCED_SYSTEM_CHECKS: list[str] = []
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "filters": {"once whole": {"()": "server.config.logs.OnceWhole"}},
    "formatters": {"stamped": {"()": "server.config.logs.Stamped"}},
    "handlers": {
        "console": {"class": "logging.StreamHandler", "formatter": "stamped", "filters": ["once whole"]},
    },
    "loggers": {
        "django.request": {"handlers": ["console"], "level": "ERROR", "propagate": False},
        "ydrometer": {"handlers": ["console"], "level": "INFO", "propagate": False},
    },
}
