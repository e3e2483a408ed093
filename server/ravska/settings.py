"""Settings, from the environment where a cook may want to change them.

RAVSKA_DATA   folder of the book and the secret key (default: var/ beside the code)
RAVSKA_HOSTS  names the server answers to, comma-separated (default: loopback only)
RAVSKA_DEBUG  1 for development
"""

import os
import secrets
from pathlib import Path

ROOT = Path(__file__).resolve().parents[2]
DATA = Path(os.environ.get("RAVSKA_DATA", ROOT / "var"))
WEB_BUILD = ROOT / "web" / "dist"


def _secret_key() -> str:
    """Return the key of this installation, made on first start and kept beside the book."""
    file = DATA / "secret-key"
    DATA.mkdir(parents=True, exist_ok=True)
    try:
        with open(os.open(file, os.O_CREAT | os.O_EXCL | os.O_WRONLY, 0o600), "w") as out:
            out.write(secrets.token_urlsafe(50))
    except FileExistsError:
        pass
    return file.read_text()


SECRET_KEY = _secret_key()
DEBUG = os.environ.get("RAVSKA_DEBUG") == "1"
ALLOWED_HOSTS = os.environ.get("RAVSKA_HOSTS", "127.0.0.1,localhost,[::1]").split(",")

INSTALLED_APPS = ["book"]
MIDDLEWARE = [
    "ravska.middleware.sealed",
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
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
}
