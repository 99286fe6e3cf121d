"""Settings. Everything a workshop may want to change comes from the environment.

PROUD_RAKE_DATA: folder of the database and the secret key. PROUD_RAKE_BIND: the address served
on. PROUD_RAKE_DEMO: 1 signs the demo's maker in, on loopback only. PROUD_RAKE_HOSTS: further
names the installation is reached by. PROUD_RAKE_DEBUG: 1 for development.
"""

import os
import re
import secrets
import socket
from pathlib import Path

BASE_DIR = Path(__file__).resolve().parent.parent
DATA_DIR = Path(os.environ.get("PROUD_RAKE_DATA", BASE_DIR / "data"))
DATA_DIR.mkdir(parents=True, exist_ok=True)

LOOPBACK = {"127.0.0.1", "::1", "localhost"}
BIND = os.environ.get("PROUD_RAKE_BIND", "127.0.0.1")
DEBUG = os.environ.get("PROUD_RAKE_DEBUG") == "1"
DEMO = os.environ.get("PROUD_RAKE_DEMO") == "1"
ON_LOOPBACK = BIND in LOOPBACK


def _secret() -> str:
    """The installation's own key, made at its first start and kept beside its data."""
    kept = DATA_DIR / "secret-key"
    if not kept.exists():
        handle = os.open(kept, os.O_WRONLY | os.O_CREAT, 0o600)
        with os.fdopen(handle, "w") as file:
            file.write(secrets.token_urlsafe(50))
    return kept.read_text().strip()


SECRET_KEY = _secret()
ALLOWED_HOSTS = ["localhost", "127.0.0.1", "[::1]"]
if not ON_LOOPBACK:
    ALLOWED_HOSTS += [BIND, socket.gethostname()]
ALLOWED_HOSTS += [name for name in os.environ.get("PROUD_RAKE_HOSTS", "").split(",") if name]

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "workshop.accounts",
    "workshop.pieces",
    "workshop.shop",
]
MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "workshop.limits.BodyLimit",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "workshop.accounts.demo.DemoSignIn",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
]
ROOT_URLCONF = "workshop.urls"
WSGI_APPLICATION = "workshop.wsgi.application"
TEMPLATES = [{"BACKEND": "django.template.backends.django.DjangoTemplates", "APP_DIRS": True}]

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": DATA_DIR / "proud-rake.sqlite3",
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
SESSION_COOKIE_AGE = 60 * 60 * 24 * 90
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
DATA_UPLOAD_MAX_MEMORY_SIZE = MOST_BODY_BYTES


def _hashed_by_the_build(_path: str, url: str) -> bool:
    """The front end's build puts a hash into every asset's name: those never change."""
    return re.match(r"^/static/assets/.+-[\w-]{8}\.\w+$", url) is not None


WHITENOISE_IMMUTABLE_FILE_TEST = _hashed_by_the_build
SILENCED_SYSTEM_CHECKS: list[str] = []
