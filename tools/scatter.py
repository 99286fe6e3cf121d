"""Plan and draw valid documents by the thousand: each must end in a plan or in a named fault.

`tools/scatter.py COUNT SEED`: numbers of the starting pieces are thrown anywhere the schema lets them,
and by turns documents are made from the schema alone; prints how many were planned, and the first
document of each way in which the program failed.
Exit status 1 if it ever did.
"""

from __future__ import annotations

import json
import random
import sys
import traceback
from collections import Counter
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))

from splay.draw import draw
from splay.errors import SplayError
from splay.piece import write_piece
from splay.plan import plan
from splay.shop import workbench
from tests.core.scattered import from_schema, scattered


def main(count: int, seed: int) -> int:
    """Scatter, plan, draw, and tell."""
    shop, rng = workbench(), random.Random(seed)
    planned, failed = 0, Counter[tuple[str, str]]()
    made = from_schema(rng)
    for turn in range(count):
        name, piece = scattered(rng) if turn % 2 else ("the schema alone", next(made))
        try:
            draw(piece, shop, plan(piece, shop))
            planned += 1
        except SplayError:
            continue
        except Exception as error:
            last = traceback.extract_tb(error.__traceback__)[-1]
            where = (type(error).__name__, f"{Path(last.filename).name}:{last.lineno}")
            failed[where] += 1
            if failed[where] == 1:
                print(*where, "in", name, json.dumps(write_piece(piece)))
    print(f"{count} valid documents, {planned} planned and drawn, {failed.total()} failed.")
    return 1 if failed else 0


if __name__ == "__main__":
    sys.exit(main(int(sys.argv[1]), int(sys.argv[2])))
