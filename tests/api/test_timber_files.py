"""Files of the timber store over HTTP: outlines out of drawings and tables, stock taken out and in."""

from __future__ import annotations

import io
import json
import math
from typing import Any
from unittest import mock

import ezdxf
import shapely

from splay.timber.stock import MOST_CORNERS
from tests.api.test_timber import ASH, LONG, TimberCase, slab
from workshop.timber.models import StockRow


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
            ("csv", "", "nothing"), ("csv", "a,b\n", "a, b"), ("svg", "<svg", "line 1"),
            ("dxf", "nonsense", "nonsense"),
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
            self.assertTrue(
                sort == "csv" or [one["id"] for one in json.loads(text)["items"]] == ["w1", "w2"]
            )
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
