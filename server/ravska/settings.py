"""Settings, from the environment where a cook may want to change them.

RAVSKA_DATA   folder of the book and the secret key (default: var/ beside the code)
RAVSKA_HOSTS  names the server answers to, comma-separated (default: loopback only)
RAVSKA_DEBUG  1 for development
"""

import os
import secrets
import sys
from contextlib import suppress
from pathlib import Path

ROOT = Path(__file__).resolve().parents[2]
DATA = Path(os.environ.get("RAVSKA_DATA", ROOT / "var"))
WEB_BUILD = ROOT / "web" / "dist"


def _own_secret(name: str) -> str:
    """Return a secret of this installation, made on first start and kept beside the book for its owner alone.

    In a folder that cannot be written to it holds for this start; what else that means is said of the book.
    """
    file, made = DATA / name, secrets.token_urlsafe(50)
    try:
        with open(os.open(file, os.O_CREAT | os.O_EXCL | os.O_WRONLY, 0o600), "w") as out:
            out.write(made)
    except FileExistsError:
        with suppress(OSError):
            return file.read_text() or made
    except OSError:
        pass
    return made


try:
    DATA.mkdir(parents=True, exist_ok=True)
except OSError as refused:
    sys.exit(f"Ravska cannot keep its book in {DATA}: {refused.strerror}. Set RAVSKA_DATA to a folder it may write to.")

SECRET_KEY = _own_secret("secret-key")
DEVICE_TOKEN = _own_secret("device-token")
"""What a scale or its bridge says who it is by; it opens the routes of readings and nothing else."""

DEBUG = os.environ.get("RAVSKA_DEBUG") == "1"
ALLOWED_HOSTS = os.environ.get("RAVSKA_HOSTS", "127.0.0.1,localhost,[::1]").split(",")

INSTALLED_APPS = ["book"]
MIDDLEWARE = [
    "ravska.middleware.sealed",
    "ravska.middleware.known_host",
    "ravska.middleware.open_book",
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "ravska.middleware.problems",
    "ravska.middleware.same_origin",
]
ROOT_URLCONF = "ravska.urls"
WSGI_APPLICATION = "ravska.wsgi.application"
APPEND_SLASH = False

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": DATA / "ravska.sqlite3",
        "CONN_MAX_AGE": None,
        "OPTIONS": {
            "timeout": 10,
            "transaction_mode": "IMMEDIATE",
            # FULL: what was acknowledged survives a power cut
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA foreign_keys=ON;",
        },
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

USE_TZ = True
TIME_ZONE = "UTC"
STATIC_URL = "/static/"
WHITENOISE_ROOT = WEB_BUILD
WHITENOISE_ALLOW_ALL_ORIGINS = False
WHITENOISE_IMMUTABLE_FILE_TEST = r"^/assets/.+-[\w-]{8}\.\w+$"
DATA_UPLOAD_MAX_MEMORY_SIZE = 1_000_000
SECURE_CONTENT_TYPE_NOSNIFF = True
X_FRAME_OPTIONS = "DENY"

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler", "level": "WARNING"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
    # what is refused is said where it is asked; faults are noted by the API itself
    "loggers": {"django.request": {"level": "CRITICAL"}},
}
