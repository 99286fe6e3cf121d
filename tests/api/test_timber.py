"""The timber store over HTTP: wood put in, looked for, changed, taken out, measured."""

from __future__ import annotations

import io
import math
from datetime import UTC, datetime
from typing import Any
from unittest import mock

import shapely
from PIL import Image

from tests.api.base import ApiCase
from workshop.timber import api as wood_air
from workshop.timber.models import StockRow

ASH = "ash, white"
LONG = {"kind": "board", "name": "Long", "species": ASH, "length": 2600, "width": 420, "thickness": 60}
LONG |= {"moisture": 8}
SQUARE = [(0, 0), (1500, 0), (1500, 600), (0, 600)]


def slab(**more: Any) -> dict[str, Any]:
    made = {"kind": "slab", "name": "Wide", "species": ASH, "thickness": 60, "moisture": 8}
    return {**made, "outline": [{"x": x, "y": y} for x, y in SQUARE], **more}


class TimberCase(ApiCase):
    def put_in(self, status: int = 201, bare: str = "metric", **item: Any) -> dict[str, Any]:
        answer = self.call("POST", "/api/timber", {"item": item, "bare": bare})
        self.assertEqual(answer.status_code, status, answer.content)
        return dict(answer.json())

    def there(self, query: str = "") -> list[str]:
        answer = self.call("GET", f"/api/timber{query}")
        self.assertEqual(answer.status_code, 200, answer.content)
        return [one["item"]["name"] for one in answer.json()["items"]]

    def change(self, stock: dict[str, Any], status: int = 200, **change: Any) -> dict[str, Any]:
        body = {"item": {**stock["item"], **change}, "based_on": stock["number"]}
        answer = self.call("PUT", f"/api/timber/{stock['id']}", body)
        self.assertEqual(answer.status_code, status, answer.content)
        return dict(answer.json())


class Store(TimberCase):
    def test_a_board_is_put_in_as_typed_and_read_back_in_the_makers_units(self) -> None:
        flaws = [{"kind": "knot", "start": "12", "end": "13 1/2", "low": "1", "high": "2"}]
        made = self.put_in(
            kind="board", name="One", species=ASH, length="96", width="7 1/4", thickness="2", flaws=flaws,
            bare="inch",
        )  # fmt: skip
        self.assertAlmostEqual(made["item"]["width"], 184.15)
        self.assertAlmostEqual(made["item"]["flaws"][0]["end"], 342.9)
        self.assertEqual(made["chosen"]["flaws.0.start"]["text"], "305 mm")
        self.assertEqual(made["text"], "2438.5 × 184 × 51 mm")

    def test_a_slice_dries_by_the_shorter_of_its_length_and_what_it_is_across(self) -> None:
        def waits(length: float, across: float) -> str:
            return str(self.put_in(kind="log", name="Slice", species=ASH, length=length, small_end=across,
                                   moisture=30)["dries"])  # fmt: skip

        self.assertEqual(waits(60, 300), waits(60, 420))
        self.assertEqual(waits(100, 60), waits(60, 300))
        self.assertNotEqual(waits(90, 300), waits(60, 300))

    def test_what_is_wrong_in_a_slab_is_drawn_where_it_is(self) -> None:
        bark = [{"x": x, "y": y} for x, y in ((0, 0), (300, 0), (300, 80), (0, 60))]
        spots = [
            {"kind": "bark", "points": bark, "area": True},
            {"kind": "knot", "points": [{"x": 700, "y": 300}], "across": 40},
        ]
        made = self.put_in(**slab(spots=spots))["flaws"]
        self.assertEqual([one["name"] for one in made], ["bark", "knot"])
        ring = shapely.Polygon(made[0]["corners"])
        self.assertEqual(len(made[0]["corners"]), 4)
        self.assertAlmostEqual(ring.area, 300 * 70)
        knot = made[1]["corners"]
        self.assertEqual(len(set(map(tuple, knot))), len(knot))
        for x, y in knot:
            self.assertAlmostEqual(math.hypot(x - 700, y - 300), 20.0)

    def test_what_is_wrong_is_said_at_its_field_and_nothing_is_kept(self) -> None:
        said = self.put_in(422, **(LONG | {"flaws": [{"kind": "knot", "start": 2500, "end": 2700}]}))
        self.assertEqual([f["field"] for f in said["faults"]], ["item.flaws.0.end"])
        said = self.put_in(422, **(LONG | {"moisture": 300, "length": "nonsense"}))
        self.assertEqual({f["field"] for f in said["faults"]}, {"item.moisture", "item.length"})
        said = self.put_in(422, **(LONG | {"species": "moon wood"}))
        self.assertIn("gravity", said["faults"][0]["do"])
        self.assertEqual(self.there(), [])

    def test_it_is_found_by_words_kind_size_dryness_and_whether_it_is_free(self) -> None:
        self.put_in(**LONG)
        self.put_in(**slab(place="by the door"))
        self.put_in(**(LONG | {"name": "Wet", "species": "oak, white", "moisture": 30, "length": 900}))
        for query, names in (
            ("", ["Long", "Wide", "Wet"]),
            ("?words=DOOR", ["Wide"]),
            ("?species=oak, white", ["Wet"]),
            ("?kind=board&length=1000", ["Long"]),
            ("?driest=10", ["Long", "Wide"]),
            ("?driest=10,5 %25", ["Long", "Wide"]),
            ("?length=1.0 m", ["Long", "Wide"]),
            ("?kind=board&bare=inch&length=39 3/8", ["Long"]),
            ("?kind=board&bare=inch&length=900 mm", ["Long", "Wet"]),
            ("?width=500", ["Wide"]),
            ("?words=nothing", []),
        ):
            with self.subTest(query):
                self.assertEqual(self.there(query), names)
        self.assertEqual(self.call("GET", "/api/timber?kind=heap").status_code, 422)
        for query, field in (("length=far", "length"), ("driest=damp", "driest"), ("driest=251", "driest")):
            refused = self.call("GET", f"/api/timber?{query}")
            self.assertEqual(
                (refused.status_code, refused.json()["faults"][0]["field"]), (422, field), query
            )

    def test_two_makers_changing_one_board_do_not_overwrite_each_other(self) -> None:
        made = self.put_in(**LONG)
        self.change(made, name="Mine")
        self.assertIn("meanwhile", self.change(made, 409, name="Theirs")["detail"])
        self.assertEqual(self.there(), ["Mine"])

    def test_what_is_taken_out_can_be_put_back(self) -> None:
        made = self.put_in(**LONG)
        self.assertEqual(self.call("DELETE", f"/api/timber/{made['id']}").status_code, 204)
        self.assertEqual(self.there(), [])
        self.assertEqual(self.call("PUT", f"/api/timber/{made['id']}/back").status_code, 200)
        self.assertEqual(self.there(), ["Long"])

    def test_readings_over_time_say_when_it_is_dry(self) -> None:
        seen = [{"on": "2026-01-01", "moisture": 30}, {"on": "2026-03-01", "moisture": 20}]
        made = self.put_in(**(LONG | {"seen": seen}))
        self.assertEqual(made["moisture"], 20)
        self.assertIn("by 2 readings", made["dries"])
        self.assertEqual(self.put_in(**(LONG | {"moisture": 9}))["dries"], "")

    def test_a_wet_log_is_to_be_split_and_a_slice_of_it_dries(self) -> None:
        log = {"kind": "log", "name": "Butt", "species": ASH, "small_end": 320, "large_end": 360}
        for length, moisture, said in (
            (1800, 60, "split or saw it first"),
            (1800, 22, ""),
            (90, 60, "as is usual"),
            (90, 9, ""),
        ):
            with self.subTest(length=length, moisture=moisture):
                dries = self.put_in(**log, length=length, moisture=moisture)["dries"]
                self.assertIn(said, dries)
                self.assertEqual(bool(dries), bool(said))

    def test_one_that_cannot_be_read_harms_no_other(self) -> None:
        self.put_in(**LONG)
        StockRow.objects.create(document={"kind": "of another time", "name": "Odd"})
        self.assertEqual(self.there(), ["Long"])
        (odd,) = self.call("GET", "/api/timber").json()["unread"]
        self.assertEqual(odd["name"], "Odd")
        self.assertIn("board", odd["why"])
        self.assertEqual(self.call("DELETE", f"/api/timber/{odd['id']}").status_code, 204)
        self.assertEqual(self.call("GET", "/api/timber").json()["unread"], [])

    def test_a_photograph_is_kept_plain_and_small(self) -> None:
        made = self.put_in(**slab())
        shot = io.BytesIO()
        Image.new("RGB", (3000, 1200), (120, 90, 60)).save(shot, "JPEG")
        path = f"/api/timber/{made['id']}/photo"
        sent = self.client.generic(
            "PUT", path, shot.getvalue(), content_type="image/jpeg", headers={"X-CSRFToken": self.token}
        )
        self.assertEqual((sent.status_code, sent.json()["width"]), (200, 1600))
        self.assertEqual(self.call("GET", path)["Content-Type"], "image/jpeg")
        self.assertEqual(self.call("GET", "/api/timber").json()["items"][0]["photo"]["width"], 1600)

    def test_the_moisture_meter_and_the_hygrometer_speak_of_what_is_there(self) -> None:
        made = self.put_in(**LONG)
        heard = self.call("POST", f"/api/timber/{made['id']}/meter", {"count": 1}).json()
        self.assertEqual(heard["state"], "read")
        self.assertAlmostEqual(heard["value"], 8.0, delta=2.0)
        heard = self.call("POST", "/api/timber/air", {"count": 4}).json()
        self.assertTrue(20 < heard["value"] < 80)
        # Those that are steady always answer; moody ones go silent now and then.
        for instruments, states in (("simulated", ["read"] * 2), ("moody", ["silent", "rubbish"])):
            shop = self.call("GET", "/api/shop").json()["shop"] | {"instruments": instruments}
            self.assertEqual(self.call("PUT", "/api/shop", {"shop": shop}).status_code, 200)
            for path in (f"/api/timber/{made['id']}/meter", "/api/timber/air"):
                heard = [self.call("POST", path, {"count": n}).json()["state"] for n in (3, 5)]
                self.assertEqual(heard, states, path)

    def test_the_simulated_air_is_damper_at_night_and_in_the_wet_half_of_the_year(self) -> None:
        def heard(month: int, hour: int) -> float:
            at = datetime(2026, month, 15, hour, 30, tzinfo=UTC)
            with mock.patch.object(wood_air.timezone, "localtime", return_value=at):
                answer = self.call("POST", "/api/timber/air", {"count": 4})
            return float(answer.json()["value"])

        for month in (2, 8):
            for day, night in ((8, 7), (19, 20)):
                # By 4, each as true as a cheap one reads.
                self.assertGreater(heard(month, night) - heard(month, day), 0.5)
        self.assertGreater(heard(11, 12) - heard(1, 12), 8.0)
        for month, about in ((12, 42.0), (6, 50.0), (9, 54.0)):
            self.assertAlmostEqual(heard(month, 12), about, delta=5.0)

    def test_of_wood_nobody_measured_the_meter_says_what_the_air_leads_to_and_a_little_more(self) -> None:
        made = self.put_in(**(LONG | {"moisture": None}))
        leads_to = self.call("GET", "/api/timber").json()["air_leads_to"]
        heard = self.call("POST", f"/api/timber/{made['id']}/meter", {"count": 1}).json()
        self.assertAlmostEqual(heard["value"], leads_to + 1.5, delta=1.2)
