"""The WSGI application."""

import os
import sys
from pathlib import Path

_HERE = Path(__file__).resolve()
sys.path[:0] = [p for p in (str(_HERE.parents[1]), str(_HERE.parents[2] / "core")) if p not in sys.path]
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "ravska.settings")

from django.core.wsgi import get_wsgi_application  # noqa: E402

application = get_wsgi_application()
