"""The log of a piece over HTTP: what is written into it, how it is searched, its pages, photographs."""

from __future__ import annotations

import io
from datetime import timedelta
from typing import Any
from urllib.parse import quote

from PIL import Image

from tests.api.test_build import NOON, BuildCase
from tests.api.test_makers import GOOD, Someone
from workshop.build.models import Entry
from workshop.pieces.models import PieceRow, ReadingEvent
from workshop.pieces.record import hang_record, read_record, record_of


class Changed(BuildCase):
    """What the log says of a changed order, in the maker's words: one change of each kind at a time."""

    def said(self, **document: Any) -> str:
        based_on = self.call("GET", f"{self.path}/build").json()["number"]
        self.order(based_on=based_on, **document)
        return str(next(line["says"] for line in self.log() if line["sort"] == "order"))

    def test_each_change_is_said_once_and_in_words(self) -> None:
        skipped = [{"key": "practice", "why": "done it before"}]
        added = [{"id": "o1", "title": "Stamp the year", "before": "write_down"}]
        self.assertEqual(self.said(skipped=skipped), "left out: practice (done it before)")
        more = [*skipped, {"key": "ready", "why": ""}]
        self.assertEqual(self.said(skipped=more), "left out: ready")
        self.assertEqual(self.said(skipped=[more[1]]), "taken in again: practice")
        self.assertEqual(self.said(), "taken in again: ready")
        self.assertEqual(self.said(added=added), "added: Stamp the year")
        self.assertEqual(self.said(added=added, glue="liquid_hide"), "glue: liquid hide")
        self.assertEqual(self.said(outline="before_boring"),
                         "glue: yellow; the outline is cut before boring, in a cradle")  # fmt: skip
        before = "before, where it will be out of reach"
        self.assertEqual(self.said(prefinish=True), f"the outline is cut after boring; finished {before}")
        self.assertEqual(self.said(finish="lacquer"), "finished after assembly; finish: lacquer, sprayed")
        self.assertEqual(self.said(finish="soap", used="child"), "finish: soap, a child’s")
        self.assertEqual(self.said(promised="2026-04-01"), "promised for 2026-04-01; finish: hard-wax oil")
        self.assertEqual(self.said(), "no longer promised")

    def test_what_changes_nothing_is_no_event(self) -> None:
        self.said(glue="hide")
        lines = len(self.log())
        self.order(based_on=1, glue="hide")
        self.order(based_on=1, glue="hide", air_c=14.0)
        self.assertEqual(len(self.log()), lines)


class TheLog(BuildCase):
    def say(self, says: str, sort: str = "note", step: str = "", status: int = 200) -> Any:
        answer = self.call("POST", f"{self.path}/log", {"sort": sort, "says": says, "step": step})
        self.assertEqual(answer.status_code, status, answer.content)
        return answer.json()

    def test_everything_that_happened_stands_in_it_the_latest_first_in_words(self) -> None:
        self.put("done", step="ready", minutes=80)
        self.clock += timedelta(hours=1)
        self.say("Ash from the north slope", step="lay_out")
        self.call("PUT", f"{self.path}/readings/bore.l1", {"typed": "14"})
        lines = [(line["sort"], line["title"], line["says"]) for line in self.log()]
        self.assertIn(("note", "Mark out the seat", "Ash from the north slope"), lines)
        self.assertIn(("done", "Ready the wood", ""), lines)
        self.assertIn(("reading", "Lean of a straight rod in hole 1", "14°"), lines)

    def test_every_reading_in_it_bears_its_unit_and_the_field_what_was_typed(self) -> None:
        for proof, typed in (("bore.l1", "14"), ("foot.l1", "463"), ("bore.l2", "15.5 °")):
            self.call("PUT", f"{self.path}/readings/{proof}", {"typed": typed})
        self.call("DELETE", f"{self.path}/readings/bore.l1")
        said = [line["says"] for line in self.log() if line["sort"] == "reading"]
        self.assertEqual(said, ["withdrawn: 14°", "15.5 °", "463 mm", "14°"])
        readings = {one["proof"]: one["typed"] for one in self.call("GET", self.path).json()["readings"]}
        self.assertEqual(readings, {"foot.l1": "463 mm", "bore.l2": "15.5 °"})

    def test_it_is_searched_by_words_whatever_their_case_over_all_pieces(self) -> None:
        self.say("Die Fichte war zu naß: ÄRGER")
        other = self.new(name="Chart table")
        self.call(
            "POST", f"/api/pieces/{other['id']}/log", {"sort": "note", "says": "ärger with the band saw"}
        )
        found = self.call("GET", "/api/log?words=ärger").json()["entries"]
        self.assertEqual({line["name"] for line in found}, {"Lantern stool", "Chart table"})
        found = self.call("GET", "/api/log?words=ärger chart").json()["entries"]
        self.assertEqual([line["name"] for line in found], ["Chart table"])
        self.assertEqual(self.call("GET", "/api/log?words=elm").json()["entries"], [])

    def test_a_lesson_is_shown_at_that_step_on_the_next_piece(self) -> None:
        self.say("Back it with scrap", "lesson", "bore.l1")
        other = self.new(name="The next")
        steps = self.call("GET", f"/api/pieces/{other['id']}/build").json()["steps"]
        bore = next(one for one in steps if one["operation"] == "bore")
        self.assertEqual([one["says"] for one in bore["lessons"]], ["Back it with scrap"])
        self.assertEqual([one for step in steps for one in step["lessons"] if step is not bore], [])
        self.call("GET", "/api/pieces")  # The rack knows what it is called.
        path = f"/api/pieces/{other['id']}/log"
        self.call("POST", path, {"sort": "lesson", "says": "Slower", "step": "bore.l1"})
        told = [(one["says"], one["piece"]) for one in self.step("bore.l1")["lessons"]]
        self.call("GET", "/api/pieces")
        self.assertEqual(told, [("Slower", "The next"), ("Back it with scrap", "")])

    def test_what_another_keeps_to_themselves_is_in_nobody_elses_log(self) -> None:
        self.say("mine alone", "lesson", "bore.l1")
        self.call("PUT", f"{self.path}/kept", {"kept": True})
        self.call("POST", "/api/makers", {"name": "linden", "password": GOOD})
        linden = Someone()
        linden.sign_in("linden", GOOD)
        self.assertEqual(linden.call("GET", "/api/log?words=mine").json()["entries"], [])
        other = linden.call("POST", "/api/pieces", {"start": "round_three"}).json()
        steps = linden.call("GET", f"/api/pieces/{other['id']}/build").json()["steps"]
        self.assertEqual([one for step in steps for one in step["lessons"]], [])

    def test_a_photograph_is_kept_plain_and_what_is_none_is_refused(self) -> None:
        picture = io.BytesIO()
        Image.new("RGB", (80, 60), "tan").save(picture, "JPEG")
        where = f"{self.path}/log/photo?step=ready&says=the%20blank"
        kept = self.call("PUT", where, picture.getvalue())
        self.assertEqual(kept.status_code, 200, kept.content)
        seen = self.call("GET", kept.json()["photo"])
        self.assertEqual((seen["Content-Type"], seen.content[:2]), ("image/jpeg", b"\xff\xd8"))
        self.say("no picture")
        note = self.log()[0]["id"]
        self.assertEqual(self.call("GET", f"{self.path}/log/{note}/photo").status_code, 404)
        self.assertEqual(self.call("GET", f"{self.path}/log/{note + 1}/photo").status_code, 404)
        refused = self.call("PUT", where, b"no picture at all")
        self.assertEqual(refused.status_code, 422)
        self.assertEqual(len(self.log()), 2)

    def test_a_page_holds_the_latest_hundred_and_says_whether_there_is_earlier(self) -> None:
        row = PieceRow.objects.get(pk=self.made["id"])
        for sort, model, what in (("note", Entry, {"sort": "note"}), ("reading", ReadingEvent, {})):
            with self.subTest(sort):
                for minute in range(101):
                    if minute == 100:
                        page = self.call("GET", f"{self.path}/log?sort={sort}").json()
                        self.assertEqual((len(page["entries"]), page["more"]), (100, False))
                    line = model.objects.create(piece=row, at=NOON, **what)
                    model.objects.filter(pk=line.pk).update(at=NOON + timedelta(minutes=minute))
                page = self.call("GET", f"{self.path}/log?sort={sort}").json()
                self.assertEqual((len(page["entries"]), page["more"]), (100, True))
                last = page["entries"][-1]["at"]
                earlier = self.call("GET", f"{self.path}/log?sort={sort}&before={quote(last)}").json()
                self.assertEqual((len(earlier["entries"]), earlier["more"]), (1, False))

    def test_what_happened_at_one_moment_stands_on_one_page(self) -> None:
        row = PieceRow.objects.get(pk=self.made["id"])
        first = Entry.objects.create(piece=row, at=NOON - timedelta(days=1), sort="note", says="first")
        Entry.objects.bulk_create([Entry(piece=row, at=NOON, sort="note") for _ in range(130)])
        page = self.call("GET", f"{self.path}/log").json()
        self.assertEqual((len(page["entries"]), page["more"]), (130, True))
        earlier = self.call("GET", f"{self.path}/log?before={quote(page['entries'][-1]['at'])}").json()
        self.assertEqual([one["says"] for one in earlier["entries"]], [first.says])
        self.assertFalse(earlier["more"])

    def test_words_that_are_in_names_find_the_pieces_whose_names_have_them_all(self) -> None:
        self.say("one")
        for name in ("Lantern bench", "Chart stool"):
            other = self.new(name=name)
            self.call("POST", f"/api/pieces/{other['id']}/log", {"sort": "note", "says": "two"})
        found = self.call("GET", "/api/log?words=lantern stool").json()["entries"]
        self.assertEqual([line["name"] for line in found], ["Lantern stool"])
        self.assertEqual(len(self.call("GET", "/api/log").json()["entries"]), 3)

    def test_nothing_is_no_note(self) -> None:
        refused = self.say("  ", status=422)
        self.assertIn("Write a word or two", refused["detail"])

    def test_order_ticks_and_log_go_out_with_the_piece_and_come_back_the_same(self) -> None:
        self.order(split=["bore.l1"], glue="hide")
        self.put("done", step="ready", minutes=70)
        self.put("wrong", step="lay_out", rescue="as_is", note="rule slipped")
        picture = io.BytesIO()
        Image.new("RGB", (80, 60), "tan").save(picture, "JPEG")
        self.call("PUT", f"{self.path}/log/photo", picture.getvalue())
        row = PieceRow.objects.get(pk=self.made["id"])
        out = record_of(row)
        row.delete()
        back = hang_record(read_record(out.model_dump(mode="json")), None)
        assert back is not None
        again = record_of(back)
        self.assertEqual(again.build, out.build)
        self.assertEqual(self.build()["number"], 1)
        assert out.build is not None
        self.assertEqual([one.sort for one in out.build.log], ["order", "done", "mishap", "photo"])
