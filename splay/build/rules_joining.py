"""Rules of the trade from the glue-up on: glue, wedges, dowels, levelling, finish, what is put on last."""

from __future__ import annotations

from splay.build.rule import GLUED, MADE, Rule, of

JOINING = (
    Rule(
        MADE | of("fit dry_fit wedges splines"),
        GLUED,
        "all parts are there before glue is spread: it does not wait",
        "glue sets while the missing part is made",
    ),
    Rule(
        of("kerf"),
        of("wedges"),
        "a wedge is made to its slot",
        "a wedge thicker than its slot opens splits the tenon below the ring",
    ),
    Rule(
        of("dry_run"),
        GLUED,
        "gone through dry and timed once, nothing is searched for with glue on it",
        "the open time is spent on finding clamps",
    ),
    Rule(
        MADE | of("fit dry_fit wedges splines ease"),
        of("dry_run"),
        "it is rehearsed with everything that will be glued",
        "the rehearsal leaves out what goes wrong",
    ),
    Rule(
        of("glue"),
        of("wedge peg peg_in trim_flush ease_proud level rope_in"),
        "wedges, pegs and the saw want the tenon where it stays",
        "a tenon wedged short of home cannot be driven any more",
    ),
    Rule(
        of("wedge peg_in"),
        of("trim_flush ease_proud level"),
        "wedges and pegs pull a leg the last hair home",
        "what was sawn flush or level stands proud again",
    ),
    Rule(
        of("trim_flush"),
        of("ease_proud level"),
        "what is sawn off the tenons is gone before anything is measured from the upper face",
        "upside down the seat lies on its tenons, and every foot reads too high",
    ),
    Rule(
        of("peg"),
        of("peg_in"),
        "a peg is driven into its hole",
        "there is nothing to drive it into",
    ),
    Rule(
        of("glue"),
        of("outside"),
        "dowels from outside are bored when the mitre holds: each hole goes through both parts at once",
        "the two halves of a hole no longer meet once the mitre is closed",
    ),
    Rule(
        of("glue"),
        of("onward"),
        "the ends are bored through their mates' holes when the joint holds",
        "bored apart, the two halves of a hole seldom meet",
    ),
    Rule(
        of("outside onward"),
        of("outside_in"),
        "a dowel is driven into its hole",
        "there is nothing to drive it into",
    ),
    Rule(
        of("peg outside onward outside_in"),
        of("level ease_feet finish trim_flush ease_proud"),
        "drilled, driven and sawn flush while the piece may still be knocked about",
        "the drill and the hammer move feet that were level, and mar what is finished",
    ),
    Rule(
        GLUED,
        of("level"),
        "level what stands as it will stand",
        "glue and wedges move the feet after they were cut",
    ),
    Rule(
        of("level"),
        of("ease_feet finish write_down"),
        "feet are eased and finished once they are cut",
        "finish on what is sawn off is wasted, and the new end is bare",
    ),
    Rule(
        of("trim_flush ease_proud ease_feet"),
        of("finish"),
        "never finish what will be cut off",
        "the coat goes into the bin with the offcut, and the cut stays bare",
    ),
    Rule(
        GLUED | of("level finish"),
        of("hold_top"),
        "the top is screwed to what stands as it will stand, its underside finished",
        "its bare underside moves more than its face, and the screws are drawn again to finish it",
    ),
    Rule(
        of("groove"),
        of("buttons"),
        "buttons are made to the groove as it lies",
        "a step that does not fit its groove draws nothing, or splits it",
    ),
    Rule(
        of("buttons"),
        of("hold_top"),
        "the top is held by buttons that are there",
        "the top lies loose until they are made",
    ),
    Rule(
        of("level ease_feet finish"),
        of("underfoot"),
        "feet are put on what is sawn, eased and finished",
        "end grain under them stays bare and takes up water",
    ),
    Rule(
        of("finish"),
        of("rope_in"),
        "rope is tied on finished legs",
        "it soaks up the finish and stiffens",
    ),
    Rule(
        MADE
        | GLUED
        | of("outside onward outside_in spline_in buttons finish trim_flush ease_proud")
        | of("ease_feet rope_in hold_top underfoot"),
        of("write_down"),
        "it is written down when all of it is known",
        "what was learned last is missing",
    ),
)  # fmt: skip
