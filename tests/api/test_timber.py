"""The timber store over HTTP: wood put in, looked for, changed, taken out; outlines and files read."""

from __future__ import annotations

import io
import json
import math
from datetime import UTC, datetime
from typing import Any
from unittest import mock

import ezdxf
import shapely
from PIL import Image

from splay.timber.stock import MOST_CORNERS
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


class Files(TimberCase):
    def outline(self, sort: str, text: str, status: int = 200, bare: str = "metric") -> dict[str, Any]:
        answer = self.call("POST", "/api/timber/outline", {"sort": sort, "text": text, "bare": bare})
        self.assertEqual(answer.status_code, status, answer.content)
        return dict(answer.json())

    def size(self, found: dict[str, Any]) -> tuple[float, float]:
        xs, ys = zip(*found["corners"], strict=True)
        return round(max(xs) - min(xs), 1), round(max(ys) - min(ys), 1)

    def test_an_outline_out_of_svg_with_and_without_units(self) -> None:
        head = '<svg xmlns="http://www.w3.org/2000/svg"'
        shape = '<path d="M0 0 H120 V40 C100 50 20 50 0 40 Z"/></svg>'
        found = self.outline("svg", f'{head} width="1200mm" height="500mm" viewBox="0 0 120 50">{shape}')
        wide, high = self.size(found)
        # The largest y of the curve through 40, 50, 50, 40 is 47.5.
        self.assertAlmostEqual(wide, 1200.0, delta=0.5)
        self.assertAlmostEqual(high, 475.0, delta=1.0)
        found = self.outline("svg", f"{head}>{shape.replace('120', '1200').replace('V40', 'V400')}")
        self.assertIn("taken as millimetres", found["said"])

    def test_an_outline_out_of_dxf_in_its_own_units_as_one_line_or_many(self) -> None:
        def text(units: int, closed: bool, by: float = 1) -> str:
            drawing = ezdxf.new()  # type: ignore[attr-defined]
            drawing.header["$INSUNITS"] = units
            space = drawing.modelspace()
            points = [(0, 0), (60 * by, 0), (60 * by, 20 * by), (0, 20 * by)]
            if closed:
                space.add_lwpolyline(points, close=True)
            else:
                for a, b in zip(points, [*points[1:], points[0]], strict=True):
                    space.add_line(a, b)
            out = io.StringIO()
            drawing.write(out)
            return out.getvalue()

        for closed in (True, False):
            self.assertEqual(self.size(self.outline("dxf", text(1, closed))), (1524.0, 508.0))
            self.assertEqual(self.size(self.outline("dxf", text(5, closed))), (600.0, 200.0))
        self.assertEqual(self.outline("dxf", text(5, True))["said"], "Sizes as the drawing gives them.")
        # Feet, millimetres, metres.
        for units, by, wide in ((2, 0.05, 914.4), (4, 10, 600.0), (6, 0.02, 1200.0)):
            self.assertEqual(self.size(self.outline("dxf", text(units, True, by)))[0], wide)
        # Without a unit of its own it is in the maker's.
        for bare, size in (("metric", (180.0, 60.0)), ("inch", (4572.0, 1524.0))):
            found = self.outline("dxf", text(0, True, 3), bare=bare)
            self.assertEqual(self.size(found), size)
            self.assertIn("the drawing names no unit", found["said"])
        # The oldest kind of file knows of no units.
        old = ezdxf.new("R12")  # type: ignore[attr-defined]
        old.modelspace().add_polyline2d([(0, 0), (900, 0), (900, 400), (0, 400)], close=True)
        out = io.StringIO()
        old.write(out)
        self.assertEqual(self.size(self.outline("dxf", out.getvalue())), (900.0, 400.0))

    def test_a_drawing_that_names_its_document_type_is_read(self) -> None:
        head = '<?xml version="1.0" encoding="UTF-8" standalone="no"?>\n<!DOCTYPE svg PUBLIC '
        head += '"-//W3C//DTD SVG 1.1//EN" "http://www.w3.org/Graphics/SVG/1.1/DTD/svg11.dtd">'
        shape = '<svg xmlns="http://www.w3.org/2000/svg"><rect width="900" height="400"/></svg>'
        self.assertEqual(self.size(self.outline("svg", f"{head}\n{shape}")), (900.0, 400.0))

    def test_what_is_wrong_with_a_file_is_said_as_far_as_it_is_known(self) -> None:
        for sort, text, got in (
            ("csv", "", "nothing"), ("csv", "a,b\n", "a, b"), ("svg", "<svg", "line 1"), ("dxf", "nonsense", "nonsense"),
            ("svg", "<!DOCTYPE a [<!ENTITY b 'c'>]><svg>&b;</svg>", "entities of its own"),
        ):  # fmt: skip
            self.assertIn(got, self.outline(sort, text, 422)["faults"][0]["got"])

    def test_a_round_one_is_as_round_in_inches_as_in_millimetres(self) -> None:
        for units, radius, millimetres in ((1, 10, 254.0), (4, 254, 254.0), (6, 0.254, 254.0)):
            drawing = ezdxf.new()  # type: ignore[attr-defined]
            drawing.header["$INSUNITS"] = units
            drawing.modelspace().add_circle((3, 4), radius)
            out = io.StringIO()
            drawing.write(out)
            corners = self.outline("dxf", out.getvalue())["corners"]
            self.assertAlmostEqual(
                shapely.Polygon(corners).area / (math.pi * millimetres**2), 1, delta=0.004
            )

    def test_one_side_with_a_unit_is_enough_and_what_is_open_is_no_outline(self) -> None:
        head = '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 900 400"'
        for sides in ('width="90cm" height="400"', 'width="900" height="40cm"'):
            said = self.outline("svg", f'{head} {sides}><rect width="900" height="400"/></svg>')["said"]
            self.assertEqual(said, "Sizes as the drawing gives them.")
        # One ends straight below where it began, the other straight beside it.
        for path in ("M0 0 H900 V400 H0", "M0 0 V400 H900 V0", "M0 0 H900 H0", "M0 0 H900 Z"):
            said = self.outline("svg", f'{head}><path d="{path}"/></svg>', 422)["faults"][0]
            self.assertEqual(said["got"], "no closed line")

    def test_lines_that_cross_at_the_corners_make_an_outline_too(self) -> None:
        drawing = ezdxf.new()  # type: ignore[attr-defined]
        drawing.header["$INSUNITS"] = 4
        space = drawing.modelspace()
        for a, b in (((-5, 0), (905, 0)), ((900, -5), (900, 405)), ((905, 400), (-5, 400)),
                     ((0, 405), (0, -5))):  # fmt: skip
            space.add_line(a, b)
        out = io.StringIO()
        drawing.write(out)
        self.assertEqual(self.size(self.outline("dxf", out.getvalue())), (900.0, 400.0))

    def test_of_several_lines_the_largest_is_taken_its_lowest_corner_at_nothing(self) -> None:
        head = '<svg xmlns="http://www.w3.org/2000/svg" width="90cm" height="50cm" viewBox="0 0 900 500">'
        small = '<rect x="40" y="60" width="80" height="40"/>'
        large = '<rect x="9" y="7" width="700" height="300"/>'
        for shapes in (small + large, large + small):
            found = self.outline("svg", f"{head}{shapes}</svg>")
            self.assertEqual(self.size(found), (700.0, 300.0))
            self.assertEqual([min(one) for one in zip(*found["corners"], strict=True)], [0.0, 0.0])
            said = "Sizes as the drawing gives them. The largest of 2 closed lines was taken."
            self.assertEqual(found["said"], said)
        self.assertNotIn("largest", self.outline("svg", f"{head}{large}</svg>")["said"])

    def test_an_edge_of_many_points_keeps_its_shape_in_few(self) -> None:
        rows = [(900 * math.cos(k / 300), 300 * math.sin(k / 300)) for k in range(1885)]
        text = "x,y\n" + "\n".join(f"{x:.3f},{y:.3f}" for x, y in rows)
        found = self.outline("csv", text)
        self.assertLessEqual(len(found["corners"]), MOST_CORNERS)
        area = shapely.Polygon(found["corners"]).area
        self.assertAlmostEqual(area / (math.pi * 900 * 300), 1.0, delta=0.005)
        self.assertEqual(found["said"], "Sizes as the table gives them.")

    def test_how_long_a_slab_and_how_small_a_piece_may_be(self) -> None:
        tried = ((8000, 300, 200), (8001, 300, 422), (300, 8001, 422), (50, 50, 200), (49, 51, 422))
        for long, high, status in tried:
            rows = f"x,y\n0,0\n{long},0\n{long},{high}\n0,{high}\n"
            self.outline("csv", rows, status)

    def test_it_is_measured_from_its_own_lowest_corner(self) -> None:
        rows = "x,y\n150,-90\n8100,-90\n8100,300\n150,300\n"
        self.assertEqual(self.size(self.outline("csv", rows)), (7950.0, 390.0))
        said = self.outline("csv", "x,y\n-4100,9\n4000,9\n4000,300\n-4100,300\n", 422)
        self.assertEqual(said["faults"][0]["got"], "8100 mm")
        found = self.outline("csv", "x,y\n0,0\n900.1234,0\n900.1234,400.4567\n0,400.4567\n")
        self.assertIn([900.12, 400.46], found["corners"])
        self.outline("csv", "x,y\n0,-4100\n400,-4100\n400,4000\n0,4000\n", 422)

    def test_how_many_points_there_may_be(self) -> None:
        drawing = ezdxf.new()  # type: ignore[attr-defined]
        drawing.header["$INSUNITS"] = 4
        drawing.modelspace().add_lwpolyline([(0, 0), (900, 0), (900, 400), (0, 400)], close=True)
        out = io.StringIO()
        drawing.write(out)
        shape = '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0 H900 V400 H0 Z"/></svg>'
        for sort, text in (("svg", shape), ("dxf", out.getvalue())):
            for most, status in ((5, 200), (4, 422)):
                with mock.patch("workshop.timber.outlines_in.MOST_POINTS", most):
                    self.outline(sort, text, status)

    def test_a_cell_that_cannot_be_read_is_named_by_its_row(self) -> None:
        said = self.outline("csv", "x,y\n0,0\n900,0\n900,wide\n", 422)["faults"][0]
        self.assertEqual(said["got"], "row 4: wide")
        said = self.outline("csv", "x;y\n0;0\n900;0;7\n", 422)["faults"][0]
        self.assertIn("row 3: 3 cells", said["got"])
        self.assertIn("2 cells", said["do"])
        # Empty rows are none; one with an empty cell is not whole, and is found by where it stands.
        self.assertEqual(self.size(self.outline("csv", "\n\nx;y\n0;0\n90;0\n90;80\n")), (90.0, 80.0))
        said = self.outline("csv", "\nx,y\n,\n0,0\n\n900,\n900,400\n", 422)["faults"][0]
        self.assertEqual(said["got"], "row 6: nothing")
        self.assertEqual(self.size(self.outline("csv", "X\tY\n0\t0\n90\t0\n90\t80,5\n")), (90.0, 80.5))

    def test_an_outline_out_of_a_table_of_points_or_of_widths(self) -> None:
        self.assertEqual(
            self.size(self.outline("csv", "x,y\n0,0\n900,0\n880,300\n0,310\n")), (900.0, 310.0)
        )
        self.assertEqual(
            self.size(self.outline("csv", "at;width\n0;300\n500;320,5\n1000;310\n")), (1000.0, 320.5)
        )
        found = self.outline("csv", "at,near,far\n0,150,150\n800,160,140\n")
        self.assertEqual(self.size(found), (800.0, 310.0))

    def test_hostile_broken_and_empty_drawings_are_refused_with_a_reason(self) -> None:
        bomb = '<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;">]><svg>&b;</svg>'
        outside = '<!DOCTYPE svg SYSTEM "file:///etc/passwd"><svg/>'
        head = '<svg xmlns="http://www.w3.org/2000/svg"'
        ring = " ".join(f"L{k % 900} {k % 700}" for k in range(60_000))
        for sort, text in (
            ("svg", bomb),
            ("svg", outside),
            ("svg", "<svg"),
            ("svg", "<html/>"),
            (
                "svg",
                f'{head}><path d="M0 0 L500 400 L500 0 L0 400 Z"/></svg>',
            ),
            ("svg", f'<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0 {ring}Z"/></svg>'),
            ("svg", '<svg xmlns="http://www.w3.org/2000/svg"><rect width="9e9" height="9e9"/></svg>'),
            ("dxf", "nonsense"),
            ("dxf", ""),
            ("csv", "x,y\n0,0\n1\n"),
            ("csv", "x,y\n0,zero\n1,1\n"),
            ("csv", "a,b\n1,2\n"),
            ("csv", "x,y\n0,0\n900,0\n"),
        ):
            with self.subTest(f"{sort} {text[:40]}"):
                said = self.outline(sort, text, 422)
                self.assertEqual(said["faults"][0]["field"], "file")
                self.assertTrue(said["faults"][0]["do"])
        self.assertEqual(self.call("POST", "/api/timber/outline", b"x" * 1_000_001).status_code, 413)

    def test_a_file_without_a_piece_takes_nothing_in_and_leaves_nothing_to_take_back(self) -> None:
        text = json.dumps({"format": "proud-rake-stock", "version": 1, "items": []})
        body = {"sort": "json", "text": text, "bare": "metric", "sure": True}
        found = self.call("POST", "/api/timber/taken_in", body).json()
        self.assertEqual((found["count"], found["taken"], found["undo"]), (0, 0, None))

    def test_the_stock_goes_out_and_comes_back_as_a_file_and_as_a_table(self) -> None:
        self.put_in(**(LONG | {"flaws": [{"kind": "knot", "start": 10, "end": 60, "low": 5, "high": 40}]}))
        self.put_in(**slab())
        before = [one["item"] for one in self.call("GET", "/api/timber").json()["items"]]
        for sort, path in (("json", "file"), ("csv", "table")):
            text = self.call("GET", f"/api/timber/{path}").content.decode()
            self.assertTrue(sort == "csv" or text.startswith('{\n "'), "a file is for people too")
            StockRow.objects.all().delete()
            body = {"sort": sort, "text": text, "bare": "metric"}
            found = self.call("POST", "/api/timber/taken_in", body).json()
            self.assertEqual((found["count"], found["taken"], self.there()), (2, 0, []))
            found = self.call("POST", "/api/timber/taken_in", {**body, "sure": True}).json()
            self.assertEqual(found["taken"], 2)
            after = [one["item"] for one in self.call("GET", "/api/timber").json()["items"]]
            for one in (*before, *after):
                one.pop("id", None)
            self.assertEqual(after, before)

    def test_a_bad_row_is_named_and_the_rest_can_be_taken(self) -> None:
        rows = (f'board,A,"{ASH}",900,90,20', f'board,B,"{ASH}",-4,90,20')
        text = "\n".join(("kind,name,species,length,width,thickness", *rows))
        body = {"sort": "csv", "text": text, "bare": "metric", "sure": True}
        found = self.call("POST", "/api/timber/taken_in", body).json()
        self.assertEqual(([b["row"] for b in found["bad"]], found["taken"]), ([3], 1))
        items = [
            {"kind": "board", "name": "A", "species": ASH, "length": 900, "width": 90, "thickness": 20}
        ]
        pile = {"format": "proud-rake-stock", "version": 1, "items": [{**items[0], "length": -4}, items[0]]}
        body = {"sort": "json", "text": json.dumps(pile), "bare": "metric"}
        found = self.call("POST", "/api/timber/taken_in", body).json()
        self.assertEqual(([b["row"] for b in found["bad"]], found["count"]), ([1], 1))
        for text in ("{}", "[1]", "{", '{"format": "proud-rake-stock", "version": 9}'):
            body = {"sort": "json", "text": text, "bare": "metric", "sure": True}
            self.assertEqual(self.call("POST", "/api/timber/taken_in", body).status_code, 422, text)
        self.assertEqual(self.there(), ["A"])
