"""A class: the order of work handed out mixed up, each learner's own, what most of them got wrong."""

from typing import Annotated
from uuid import UUID

from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import Field

from splay.build.classwork import Common, Wrong, common, judged, mixed
from splay.build.document import LONGEST_KEY, MOST_STEPS
from splay.document import plain_name
from splay.errors import BadInput, Fault
from workshop.build.models import ClassOrder
from workshop.build.situation import situation
from workshop.pieces.actions import get_row
from workshop.sent import Sent
from workshop.shop.models import the_shop

router = Router()
Learner = Annotated[str, Field(min_length=1, max_length=60)]
MOST_LEARNERS = 200


class Card(Schema):
    """A step without its place."""

    key: str
    title: str


class HandedIn(Sent):
    """One learner and how many reasons their order broke."""

    learner: str
    wrong: int


class ClassOut(Schema):
    """The exercise: the steps mixed up, who handed in, what most got wrong."""

    steps: list[Card]
    handed_in: list[HandedIn]
    common: list[Common]


class OrderIn(Sent):
    """The steps as a learner put them."""

    learner: Learner
    order: Annotated[
        list[Annotated[str, Field(max_length=LONGEST_KEY)]], Field(min_length=2, max_length=MOST_STEPS)
    ]


class JudgedOut(Schema):
    """What is wrong with an order: nothing where it is a good one."""

    wrong: list[Wrong]


@router.get("/{uuid:id}/class", response={200: ClassOut})
def hand_out(
    request: HttpRequest, id: UUID, learner: Annotated[str, Field(max_length=60)] = ""
) -> ClassOut:
    """The order of work mixed up, the same way each time for one learner."""
    row = get_row(id, request.user)
    order = situation(row, the_shop(request.user), request.user).order
    rows = list(ClassOrder.objects.filter(piece=row).order_by("learner")[:MOST_LEARNERS])
    return ClassOut(
        steps=[Card(key=step.key, title=step.title) for step in mixed(order, f"{row.pk} {learner}")],
        handed_in=[HandedIn(learner=one.learner, wrong=len(one.broken)) for one in rows],
        common=list(common(tuple(Wrong(**wrong) for wrong in one.broken) for one in rows)),
    )


@router.put("/{uuid:id}/class", response={200: JudgedOut})
def hand_in(request: HttpRequest, id: UUID, payload: OrderIn) -> JudgedOut:
    """Judge a learner's order and keep it; one handed in again takes the place of the one before."""
    row = get_row(id, request.user)
    order = situation(row, the_shop(request.user), request.user).order
    if sorted(payload.order) != sorted(step.key for step in order.steps):
        do = "Take the exercise anew: the piece was changed meanwhile."
        raise BadInput(Fault("order", "other steps", "every step of the piece once", do))
    learner = plain_name(payload.learner)
    if ClassOrder.objects.filter(piece=row).exclude(learner=learner).count() >= MOST_LEARNERS:
        do = "Hang the piece up once more for the rest of the class."
        raise BadInput(Fault("learner", "one more", f"at most {MOST_LEARNERS} learners", do))
    wrong = judged(order, payload.order)
    said = {"order": payload.order, "broken": [vars(one) for one in wrong]}
    ClassOrder.objects.update_or_create(piece=row, learner=learner, defaults=said)
    return JudgedOut(wrong=list(wrong))
