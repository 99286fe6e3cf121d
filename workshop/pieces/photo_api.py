"""The photograph under a drawn outline: sent as it is, kept small and plain."""

from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Router, Status

from workshop.pieces import photos
from workshop.pieces.answers import PhotoOut

router = Router()


@router.put("/{uuid:id}/photo", response={200: PhotoOut})
def keep(request: HttpRequest, id: UUID) -> PhotoOut:
    """Keep a photograph (the body is the picture itself) in the place of the one before."""
    kept = photos.keep_photo(id, request.body, request.user)
    return PhotoOut(width=kept.width, height=kept.height, taken=kept.taken)


@router.get("/{uuid:id}/photo/about", response={200: PhotoOut})
def about(request: HttpRequest, id: UUID) -> PhotoOut:
    """What photograph there is of a piece."""
    kept = photos.photo_of(id, request.user)
    return PhotoOut(width=kept.width, height=kept.height, taken=kept.taken)


@router.get("/{uuid:id}/photo", response={200: None})
def look(request: HttpRequest, id: UUID) -> HttpResponse:
    """The photograph, a JPEG."""
    kept = photos.photo_of(id, request.user)
    answer = HttpResponse(bytes(kept.image), content_type="image/jpeg")
    answer["Cache-Control"] = "private, no-cache"
    return answer


@router.delete("/{uuid:id}/photo", response={204: None})
def drop(request: HttpRequest, id: UUID) -> Status:
    """Take the photograph away."""
    photos.drop_photo(id, request.user)
    return Status(204, None)
