"""Settings. Everything a workshop may want to change comes from the environment.

PROUD_RAKE_DATA: folder of the database and the secret key. PROUD_RAKE_BIND: the address served
on. PROUD_RAKE_DEMO: 1 signs the demo's maker in, on loopback only. PROUD_RAKE_HOSTS: further
names the installation is reached by. PROUD_RAKE_TLS: 1 where a proxy on this machine speaks TLS for it.
PROUD_RAKE_BACKUPS: a folder, a stick's for one, that gets a copy of every backup while it is in.
PROUD_RAKE_DEBUG: 1 for development.
"""

import os
import re
import socket
from datetime import timedelta
from pathlib import Path

from csp.constants import NONCE, NONE, SELF

from workshop.folder import open_folder, secret_of

BASE_DIR = Path(__file__).resolve().parent.parent
DATA_DIR = open_folder(Path(os.environ.get("PROUD_RAKE_DATA", BASE_DIR / "data")))
BACKUPS_TO = Path(os.environ["PROUD_RAKE_BACKUPS"]) if os.environ.get("PROUD_RAKE_BACKUPS") else None

LOOPBACK = {"127.0.0.1", "::1", "localhost"}
BIND = os.environ.get("PROUD_RAKE_BIND", "127.0.0.1")
DEBUG = os.environ.get("PROUD_RAKE_DEBUG") == "1"
DEMO = os.environ.get("PROUD_RAKE_DEMO") == "1"
ON_LOOPBACK = BIND in LOOPBACK

SECRET_KEY = secret_of(DATA_DIR)
ALLOWED_HOSTS = ["localhost", "127.0.0.1", "[::1]"]
if not ON_LOOPBACK:
    ALLOWED_HOSTS += [BIND, socket.gethostname()]
ALLOWED_HOSTS += [name for name in os.environ.get("PROUD_RAKE_HOSTS", "").split(",") if name]

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "axes",
    "csp",
    "workshop.accounts",
    "workshop.pieces",
    "workshop.shop",
    "workshop.build",
    "workshop.timber",
    "workshop.keeping",
]
MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "csp.middleware.CSPMiddleware",
    "django.middleware.gzip.GZipMiddleware",
    "workshop.limits.Api",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "workshop.accounts.demo.DemoSignIn",
    "workshop.accounts.sessions.Seen",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
]
AUTHENTICATION_BACKENDS = [
    "axes.backends.AxesStandaloneBackend",
    "django.contrib.auth.backends.ModelBackend",
]
# Wrong passwords for one name from one address: nobody else is held up by them.
AXES_FAILURE_LIMIT = 6
AXES_COOLOFF_TIME = timedelta(minutes=10)
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_RESET_ON_SUCCESS = True
AXES_RESET_COOL_OFF_ON_FAILURE_DURING_LOCKOUT = False
AXES_DISABLE_ACCESS_LOG = True
AXES_VERBOSE = False
AXES_IPWARE_META_PRECEDENCE_ORDER = ["REMOTE_ADDR"]
CSRF_FAILURE_VIEW = "workshop.problems.no_token"

# What the built page needs, and nothing else. Styles: files, the theme's one element (by nonce), and
# attributes, which the drawing and control libraries set.
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [NONE],
        "script-src": [SELF],
        "style-src": [SELF, NONCE],
        "style-src-attr": ["'unsafe-inline'"],
        "img-src": [SELF, "data:", "blob:"],
        "font-src": [SELF],
        "connect-src": [SELF],
        "base-uri": [NONE],
        "form-action": [SELF],
        "frame-ancestors": [NONE],
    }
}
ROOT_URLCONF = "workshop.urls"
WSGI_APPLICATION = "workshop.wsgi.application"
TEMPLATES = [{"BACKEND": "django.template.backends.django.DjangoTemplates", "APP_DIRS": True}]

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": DATA_DIR / "proud-rake.sqlite3",
        # A thread keeps its connection: opening the file anew costs more than what is asked of it.
        "CONN_MAX_AGE": None,
        "OPTIONS": {
            "transaction_mode": "IMMEDIATE",
            "timeout": 20,
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL;",
        },
        "TEST": {"NAME": DATA_DIR / "test.sqlite3"},
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

PASSWORD_HASHERS = ["django.contrib.auth.hashers.Argon2PasswordHasher"]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": f"django.contrib.auth.password_validation.{name}"}
    for name in (
        "UserAttributeSimilarityValidator",
        "MinimumLengthValidator",
        "CommonPasswordValidator",
        "NumericPasswordValidator",
    )
]
SESSION_ENGINE = "workshop.accounts.sessions"
SESSION_COOKIE_AGE = 60 * 60 * 24 * 400
TLS = os.environ.get("PROUD_RAKE_TLS") == "1"
if TLS:
    SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = True
    SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https")
    CSRF_TRUSTED_ORIGINS = [f"https://{name.strip('[]')}" for name in ALLOWED_HOSTS if name != "[::1]"]
SESSION_COOKIE_SAMESITE = CSRF_COOKIE_SAMESITE = "Lax"
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"

LOG_FILE = DATA_DIR / "workshop.log"
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {"line": {"format": "%(asctime)s %(levelname)s %(name)s: %(message)s"}},
    "handlers": {
        "terminal": {"class": "logging.StreamHandler", "formatter": "line"},
        "file": {
            "class": "logging.handlers.RotatingFileHandler",
            "filename": LOG_FILE,
            "maxBytes": 1_000_000,
            "backupCount": 3,
            "delay": True,
            "encoding": "utf-8",
            "formatter": "line",
        },
    },
    "loggers": {
        "waitress.queue": {"level": "ERROR"},
        "axes": {"level": "ERROR"},
        # Every fault goes to both, whichever room it comes from; the rest is for the terminal.
        "workshop": {"handlers": ["terminal", "file"], "level": "WARNING", "propagate": False},
        "django.request": {"handlers": ["terminal", "file"], "level": "ERROR", "propagate": False},
    },
}

LANGUAGE_CODE = "en"
TIME_ZONE = "UTC"
USE_TZ = True
USE_I18N = False

STATIC_URL = "/static/"
STATIC_ROOT = BASE_DIR / "build" / "static"
WEB_DIST = BASE_DIR / "web" / "dist"
STATICFILES_DIRS = [WEB_DIST] if WEB_DIST.exists() else []
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    "staticfiles": {"BACKEND": "whitenoise.storage.CompressedStaticFilesStorage"},
}
MOST_BODY_BYTES = 1_000_000
MOST_ARCHIVE_BYTES = 2_000_000_000
DATA_UPLOAD_MAX_MEMORY_SIZE = MOST_BODY_BYTES


def _hashed_by_the_build(_path: str, url: str) -> bool:
    """The front end's build puts a hash into every asset's name: those never change."""
    return re.match(r"^/static/assets/.+-[\w-]{8}\.\w+$", url) is not None


WHITENOISE_IMMUTABLE_FILE_TEST = _hashed_by_the_build
SILENCED_SYSTEM_CHECKS = ["axes.W002"]  # Its middleware answers in its own words; signing in says ours.
