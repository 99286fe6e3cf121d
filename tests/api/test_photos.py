"""The photograph under a drawn outline: kept small and plain, one a piece."""

from __future__ import annotations

import io
import os
import shutil
import subprocess
import sys
import tempfile
import uuid
from pathlib import Path
from typing import Any

from django.conf import settings
from django.test import Client
from PIL import Image, ImageCms
from PIL.PngImagePlugin import PngInfo

from splay.piece import write_piece
from splay.piece.starters import starter
from tests.api.base import ApiCase
from workshop.demo.slice_photo import slice_photo
from workshop.keeping.nightly import count_nights
from workshop.pieces.models import BIN_NIGHTS, PiecePhoto
from workshop.pieces.photos import is_plain_jpeg, taken_over


def picture(size: tuple[int, int] = (300, 200), kind: str = "PNG", **save: Any) -> bytes:
    """A picture whose left half is red and whose right half is green."""
    made = Image.new("RGB", size, (200, 30, 30))
    made.paste((30, 160, 30), (size[0] // 2, 0, size[0], size[1]))
    out = io.BytesIO()
    made.save(out, kind, **save)
    return out.getvalue()


JFIF = {"jfif", "jfif_version", "jfif_unit", "jfif_density"}
"""What every plain JPEG says of itself."""
LOOKED_AT = """
import resource, sys, django
django.setup()
from workshop.pieces.photos import plain_jpeg
from multiprocessing import Process
def most():
    return resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
def look(path):
    before = most()
    plain_jpeg(open(path, "rb").read())
    print(path, most() - before, flush=True)
for path in sys.argv[1:]:
    one = Process(target=look, args=(path,))
    one.start()
    one.join()
"""
"""Looks at each picture in a process of its own and prints how much memory that took, kB."""


def bombed_text() -> bytes:
    """A small picture with text chunks that unfold into a hundred megabytes."""
    about = PngInfo()
    for number in range(20):
        about.add_text(f"note {number}", "x" * 5_000_000, zip=True)
    return picture((20, 20), pnginfo=about)


class Photos(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        document = write_piece(starter("log_slice"))
        self.piece = self.call("POST", "/api/pieces", {"document": document}).json()["id"]
        self.path = f"/api/pieces/{self.piece}/photo"

    def kept(self) -> Image.Image:
        got = self.client.get(self.path)
        self.assertEqual(got.headers["Content-Type"], "image/jpeg")
        return Image.open(io.BytesIO(got.content))

    def test_every_usual_kind_of_picture_is_kept_as_a_plain_jpeg(self) -> None:
        for kind in ("PNG", "JPEG", "WEBP"):
            sent = self.call("PUT", self.path, picture(kind=kind))
            self.assertEqual(sent.status_code, 200, sent.content)
            self.assertEqual((sent.json()["width"], sent.json()["height"]), (300, 200))
            self.assertEqual(self.kept().format, "JPEG")
        self.assertEqual(PiecePhoto.objects.count(), 1)
        self.assertEqual(self.client.get(f"{self.path}/about").json()["width"], 300)

    def test_what_a_camera_wrote_into_it_is_left_out_and_it_stands_upright(self) -> None:
        exif = Image.Exif()
        exif[0x0112] = 6  # lies on its side: turned a quarter to be seen upright
        exif[0x010F] = "a camera"
        exif.get_ifd(0x8825)[1] = "N"  # where it was taken
        self.call("PUT", self.path, picture(kind="JPEG", exif=exif))
        seen = self.kept()
        self.assertEqual(seen.size, (200, 300))
        self.assertEqual(dict(seen.getexif()), {})
        top, bottom = seen.getpixel((100, 20)), seen.getpixel((100, 280))
        assert isinstance(top, tuple) and isinstance(bottom, tuple)
        self.assertGreater(top[0], top[1])
        self.assertGreater(bottom[1], bottom[0])

    def test_it_comes_as_a_picture_or_as_bytes_and_as_nothing_else(self) -> None:
        for kind, status in (
            ("image/png", 200), ("application/octet-stream", 200), ("text/plain", 415), ("video/mp4", 415),
        ):  # fmt: skip
            token = {"X-CSRFToken": self.token}
            sent = self.client.generic("PUT", self.path, picture(), content_type=kind, headers=token)
            self.assertEqual(sent.status_code, status, kind)

    def test_a_large_one_is_made_smaller_in_its_own_shape(self) -> None:
        self.call("PUT", self.path, picture((4000, 1000)))
        self.assertEqual(self.kept().size, (1600, 400))

    def test_one_that_can_be_seen_through_keeps_its_colours(self) -> None:
        for mode, left, right in (("RGBA", (200, 30, 30), (30, 160, 30)), ("LA", (90,) * 3, (200,) * 3)):
            made = Image.new(mode, (2000, 1000), (*left[: len(mode) - 1], 255))
            made.paste((*right[: len(mode) - 1], 255), (1000, 0, 2000, 1000))
            out = io.BytesIO()
            made.save(out, "PNG")
            self.assertEqual(self.call("PUT", self.path, out.getvalue()).status_code, 200)
            seen = self.kept()
            for x, wanted in ((400, left), (1200, right)):
                pixel = seen.getpixel((x, 400))
                assert isinstance(pixel, tuple)
                for got, want in zip(pixel, wanted, strict=True):
                    self.assertAlmostEqual(got, want, delta=6)

    def test_only_a_plain_and_small_jpeg_is_taken_over_as_it_is(self) -> None:
        for plain, given in (
            (True, picture((1600, 900), kind="JPEG")),
            (False, picture((1601, 900), kind="JPEG")),
            (False, picture((900, 1601), kind="JPEG")),
            (False, picture(kind="PNG")),
            (False, picture(kind="JPEG", comment=b"a place")),
        ):
            self.assertEqual(is_plain_jpeg(given), plain)
            self.assertEqual(taken_over(given)[0] == given, plain)

    def test_what_is_no_picture_is_refused_with_what_to_do(self) -> None:
        self.call("PUT", self.path, picture())
        whole = picture(kind="JPEG")
        for bad in (b"", b"{}", b"GIF89a" + bytes(40), whole[: len(whole) // 2], picture()[:60]):
            answer = self.call("PUT", self.path, bad)
            self.assertEqual(answer.status_code, 422, bad[:20])
            fault = answer.json()["faults"][0]
            self.assertEqual(fault["field"], "photo")
            self.assertTrue(fault["do"])
        # The one before is still there.
        self.assertEqual(self.kept().size, (300, 200))

    def test_nothing_written_beside_the_picture_is_kept(self) -> None:
        about = PngInfo()
        about.add_text("Comment", "a secret place")
        about.add_itxt("XML:com.adobe.xmp", "<x>a secret place</x>")
        profile = ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes()
        for sent in (
            picture(kind="PNG", pnginfo=about, icc_profile=profile, dpi=(72, 72)),
            picture(kind="JPEG", comment=b"a secret place", icc_profile=profile, xmp=b"a secret place"),
            picture(kind="WEBP", xmp=b"a secret place", icc_profile=profile),
        ):
            self.assertEqual(self.call("PUT", self.path, sent).status_code, 200)
            kept = self.client.get(self.path).content
            self.assertNotIn(b"secret", kept)
            self.assertLessEqual(set(Image.open(io.BytesIO(kept)).info), JFIF)

    def test_kinds_that_are_no_photographs_are_refused(self) -> None:
        bad = {
            "GIF": picture(kind="GIF"),
            "BMP": picture(kind="BMP"),
            "TIFF": picture(kind="TIFF"),
            "ICO": picture((64, 64), kind="ICO"),
            "PDF": picture(kind="PDF"),
            "EPS": picture(kind="EPS"),
            "PPM": picture(kind="PPM"),
            "TGA": picture(kind="TGA"),
            "SVG": b"<svg xmlns='http://www.w3.org/2000/svg'><script>alert(1)</script></svg>",
            "page": b"<!doctype html><script>alert(1)</script>",
            "archive": b"PK\x03\x04" + bytes(200),
            "program": b"\x7fELF" + bytes(200),
            "text chunks": bombed_text(),
        }
        for kind, sent in bad.items():
            with self.subTest(kind):
                self.assertEqual(self.call("PUT", self.path, sent).status_code, 422)
        self.assertEqual(self.client.get(self.path).status_code, 404)

    def test_small_files_that_unfold_into_huge_pictures_stay_small_in_memory(self) -> None:
        # Each as large as is let in at all, and one of each just beyond.
        folder = Path(tempfile.mkdtemp())
        self.addCleanup(shutil.rmtree, folder)
        sent = {
            "whole.png": ((6000, 4000), {}),
            "seen-through.png": ((6000, 4000), {"mode": "RGBA"}),
            "few-colours.png": ((6000, 4000), {"mode": "P"}),
            "one-colour.jpeg": ((6000, 4000), {"quality": 10}),
            "passes.jpeg": ((4000, 3000), {"quality": 10, "progressive": True}),
            "one-colour.webp": ((4000, 2000), {"lossless": True}),
        }
        for name, (size, how) in sent.items():
            made = Image.new(how.pop("mode", "RGB"), size)
            made.save(folder / name, **how)
            self.assertLess((folder / name).stat().st_size, 400_000, name)
        ran = subprocess.run(
            [sys.executable, "-c", LOOKED_AT, *(str(folder / name) for name in sent)],
            cwd=settings.BASE_DIR,
            env={
                **os.environ,
                "DJANGO_SETTINGS_MODULE": "workshop.settings",
                "PROUD_RAKE_DATA": str(folder),
            },
            capture_output=True,
            text=True,
        )
        took = dict(line.split(" ") for line in ran.stdout.splitlines())
        self.assertEqual(set(took), {str(folder / name) for name in sent}, ran.stderr)
        for name, kilobytes in took.items():
            self.assertLess(int(kilobytes), 150_000, name)
        for name, size in (("PNG", (6001, 4000)), ("JPEG", (6001, 4000)), ("WEBP", (4001, 2000))):
            with self.subTest(name):
                refused = self.call("PUT", self.path, picture(size, kind=name))
                self.assertEqual(refused.status_code, 422)
                many = {"WEBP": 8}.get(name, 24)
                self.assertIn(f"smaller first: {many} million pixels", refused.json()["detail"])
        passes = picture((4001, 3000), kind="JPEG", progressive=True, quality=10)
        self.assertEqual(self.call("PUT", self.path, passes).status_code, 422)

    def test_far_too_many_pixels_or_bytes_are_refused(self) -> None:
        many = self.call("PUT", self.path, picture((9000, 8000)))
        self.assertEqual(many.status_code, 422)
        self.assertIn("9000 by 8000", many.json()["faults"][0]["got"])
        self.assertEqual(self.call("PUT", self.path, bytes(1_100_000)).status_code, 413)

    def test_a_piece_without_one_says_so_and_it_goes_with_its_piece(self) -> None:
        self.assertEqual(self.client.get(self.path).status_code, 404)
        self.assertEqual(self.client.get(f"{self.path}/about").status_code, 404)
        self.assertEqual(self.call("PUT", f"/api/pieces/{uuid.uuid4()}/photo", picture()).status_code, 404)
        self.call("PUT", self.path, picture())
        self.assertEqual(self.call("DELETE", self.path).status_code, 204)
        self.assertEqual(self.client.get(self.path).status_code, 404)
        self.call("PUT", self.path, picture())
        self.call("DELETE", f"/api/pieces/{self.piece}")
        for _ in range(BIN_NIGHTS):
            self.assertEqual(PiecePhoto.objects.count(), 1)
            count_nights()
        self.assertEqual(PiecePhoto.objects.count(), 0)

    def test_nobody_else_sees_it(self) -> None:
        self.call("PUT", self.path, picture())
        self.assertEqual(Client().get(self.path).status_code, 401)
        self.assertEqual(self.client.put(self.path, picture(), "image/png").status_code, 403)

    def test_where_it_lies_is_kept_with_the_piece_and_read_as_typed(self) -> None:
        document = write_piece(starter("log_slice"))
        document["top"]["outline"]["photo"] = {"width": "18 in", "y": "-1/2 in", "turn": 4}
        saved = self.call("PUT", f"/api/pieces/{self.piece}", {"document": document, "based_on": 1})
        photo = saved.json()["piece"]["top"]["outline"]["photo"]
        self.assertEqual(photo, {"width": 457.2, "x": 0.0, "y": -12.7, "turn": 4.0})

    def test_the_demos_own_picture_is_one(self) -> None:
        ring = [(150.0, 0.0), (0.0, 140.0), (-160.0, 10.0), (0.0, -150.0)]
        self.assertEqual(slice_photo(ring), slice_photo(ring))
        self.assertEqual(self.call("PUT", self.path, slice_photo(ring)).status_code, 200)
        self.assertEqual(self.kept().size, (920, 920))
