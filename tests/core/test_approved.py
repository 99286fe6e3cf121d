"""What is told, shown and drawn is what was read and looked at last, to the word and to the figure."""

from __future__ import annotations

from django.test import SimpleTestCase

from tests.approve import approved, now

HOW = "Read it; if it is meant: `make approve`, and look at what its difference says."


class Approved(SimpleTestCase):
    def test_every_sentence_was_read(self) -> None:
        said, was = now()[1], approved()[1]
        self.assertEqual(sorted(said - was), [], HOW)
        self.assertEqual(sorted(was - said), [], HOW)

    def test_nothing_is_another_than_it_was(self) -> None:
        signs, old = now()[0], approved()[0]
        changed = [key for key in sorted({*signs, *old}) if signs.get(key) != old.get(key)]
        self.assertEqual(changed[:20], [], f"{len(changed)} of {len(signs)}. {HOW}")
