"""Where requests go: the API, and for everything else the one page."""

from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse
from django.urls import path, re_path
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie

from workshop.api import api


@never_cache
@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    """The one page the browser loads; it finds its own way from there."""
    built = settings.WEB_DIST / "index.html"
    if not built.exists():
        raise Http404("The front end is not built yet: run make build.")
    return HttpResponse(built.read_bytes(), content_type="text/html; charset=utf-8")


urlpatterns = [
    path("api/", api.urls),
    re_path(r"^(?!api/|static/).*$", page),
]
