"""WSGI entry point."""

import os
import sys
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parent.parent.parent))
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")

from apps.accounts.sessions import is_signed_in
from apps.printing.render import warm_up
from django.conf import settings
from django.core.wsgi import get_wsgi_application

from config.edge import Edge
from config.warm import warm

application = Edge(
    get_wsgi_application(),
    trusted_proxies=settings.TRUSTED_PROXIES,
    bodies_at_a_time=max(2, settings.THREADS - 8),
    signed_in=is_signed_in,
)
warm_up()
warm()
