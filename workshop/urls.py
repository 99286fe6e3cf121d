"""Where requests go: the API, and for everything else the one page."""

import json
import sys

from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse
from django.urls import path, re_path
from django.utils.html import escape
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie

from workshop.api import api
from workshop.problems import failed


@never_cache
@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    """The one page the browser loads; it finds its own way from there."""
    built = settings.WEB_DIST / "index.html"
    if not built.exists():
        raise Http404("The front end is not built yet: run make build.")
    text = built.read_text(encoding="utf-8").replace("__NONCE__", str(request.csp_nonce))  # type: ignore[attr-defined]
    return HttpResponse(text, content_type="text/html; charset=utf-8")


def server_error(request: HttpRequest) -> HttpResponse:
    """A fault outside the API's own views: written down and named like any other."""
    error = sys.exc_info()[1] or RuntimeError("A fault that left no trace")
    said = failed(request, error)
    if request.path.startswith("/api/"):
        return said
    detail = escape(json.loads(said.content)["detail"])
    page = f"<!doctype html><html lang=en><title>Proud Rake</title><p>{detail}"
    return HttpResponse(page, status=said.status_code)


handler500 = server_error


urlpatterns = [
    path("api/", api.urls),
    re_path(r"^(?!api/|static/).*$", page),
]
