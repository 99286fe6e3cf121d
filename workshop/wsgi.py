"""The application for a production server."""

import os

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "workshop.settings")
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

from django.core.wsgi import get_wsgi_application

application = get_wsgi_application()

from workshop.warm import warm  # noqa: E402

warm()
