"""Keep a home for the tests, before the shape of the data file changes: ``python -m tools.keep_home HOME``.

Serve the demo on an empty folder, end it when its lays are there, and give that folder; what is written is
``tests/store/homes/NNNN.sql.gz``, with the number of its shape.
"""

from __future__ import annotations

import gzip
import sqlite3
import sys
from contextlib import closing
from pathlib import Path

from idle_selvage.store.data_file import FILE_NAME, shape_of

HOMES = Path(__file__).parents[1] / "tests" / "store" / "homes"


def main() -> None:
    """Write it, packed alike whenever it is packed."""
    path = Path(sys.argv[1]) / FILE_NAME
    with closing(sqlite3.connect(path)) as data:
        text = "\n".join(data.iterdump())
    out = HOMES / f"{shape_of(path)}.sql.gz"
    out.write_bytes(gzip.compress(text.encode(), 9, mtime=0))
    print(out.name)


if __name__ == "__main__":
    main()
