"""Every card of a piece, in the order of hands: a mark is made before anything leans on it."""

from __future__ import annotations

from splay.setups.boring import boring_cards
from splay.setups.buttons import button_cards, groove_cards
from splay.setups.card import SetUp
from splay.setups.crosscut import crosscut_cards
from splay.setups.foot import foot_cards
from splay.setups.hand_holds import hand_hold_cards
from splay.setups.held import held_cards
from splay.setups.hollows import hollow_cards
from splay.setups.joins import join_cards, on_lines
from splay.setups.leg_ends import leg_end_cards
from splay.setups.leg_marks import leg_mark_cards, slot_cards
from splay.setups.leg_shapes import leg_shape_cards
from splay.setups.made import Made
from splay.setups.member_cards import member_cards
from splay.setups.member_cuts import member_cut_cards
from splay.setups.outside import outside_cards
from splay.setups.pegs import peg_cards
from splay.setups.rope_cards import rope_cards
from splay.setups.shaping import shaping_cards
from splay.setups.side_tapers import side_taper_cards
from splay.setups.splines import spline_cards
from splay.setups.stick_tenons import stick_tenon_cards
from splay.setups.wedge_cards import wedge_cards


def all_cards(made: Made) -> tuple[SetUp, ...]:
    """The cards of a piece on the tools of its shop. CannotBuild where no jig could be made."""
    return (*_of_legs(made), *_of_squared_parts(made), *_of_what_runs_between(made), *_of_buttons(made))


def _of_legs(made: Made) -> tuple[SetUp, ...]:
    piece, shop, show, real, legs = made.piece, made.shop, made.show, made.real, made.legs
    return (
        *hand_hold_cards(piece, show),
        *boring_cards(piece, made.planned, shop, show),
        *hollow_cards(piece, show),
        *peg_cards(piece, made.planned, shop, show),
        *leg_shape_cards(piece, real, legs, shop, show),
        *leg_mark_cards(piece, real, legs, shop, show),
        *leg_end_cards(piece, real, legs, shop, show),
        *slot_cards(piece, real, legs, shop, show),
        *wedge_cards(piece, real, legs, show),
        *foot_cards(piece, real, legs, shop, show),
    )


def _of_squared_parts(made: Made) -> tuple[SetUp, ...]:
    piece, shop, show, sticks, bodies = made.piece, made.shop, made.show, made.sticks, made.real.bodies
    shaped = shaping_cards(piece, sticks, bodies, shop, show)
    return (
        # Ripped first: lengths are taken along the bevelled corners.
        *(card for card in shaped if card.operation == "rip"),
        *crosscut_cards(sticks, bodies, shop, show),
        *stick_tenon_cards(piece, sticks, bodies, show),
        *join_cards(sticks, made.joins, show),
        *on_lines((card for card in shaped if card.operation != "rip"), made.joins),
        *spline_cards(piece, sticks, made.through, show),
        *held_cards(sticks, made.screws, show),
        *groove_cards(sticks, made.grooved, show),
        *outside_cards(piece, sticks, show),
        # Tapered last: joints are cut from sides that run straight.
        *side_taper_cards(sticks, bodies, shop, show),
    )


def _of_what_runs_between(made: Made) -> tuple[SetUp, ...]:
    piece, shop, show = made.piece, made.shop, made.show
    sockets = member_cards(piece, made.members, shop, show)
    return (
        *(card for card in sockets if card.legs),
        *rope_cards(made.ropes, shop, show),
        *member_cut_cards(piece, made.members, made.runs, shop, show),
        *(card for card in sockets if not card.legs),
    )


def _of_buttons(made: Made) -> tuple[SetUp, ...]:
    return tuple(button_cards(made.piece, made.sticks, made.grooved, made.read, made.show))
