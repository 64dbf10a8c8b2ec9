"""Files of a million parts, one after another; prints the most memory that took, MB. Run by the tests as a process."""

from __future__ import annotations

import contextlib
import zlib
from pathlib import Path

from idle_selvage.formats.audit import Unreadable
from idle_selvage.formats.reading import take_in


def pdf(content: bytes) -> bytes:
    """A page with this content, without a table of where things are."""
    packed = zlib.compress(content)
    head = b"%PDF-1.4\n1 0 obj <</Type/Catalog/Pages 2 0 R>> endobj\n"
    tree = b"2 0 obj <</Type/Pages/Kids[3 0 R]/Count 1>> endobj\n"
    page = b"3 0 obj <</Type/Page/Parent 2 0 R/MediaBox[0 0 595 842]/Contents 4 0 R>> endobj\n"
    drawn = b"4 0 obj <</Length %d/Filter/FlateDecode>> stream\n" % len(packed) + packed + b"\nendstream endobj\n"
    return head + tree + page + drawn + b"trailer <</Size 5/Root 1 0 R>>\n%%EOF"


LINE = "  0\nLINE\n  8\n1\n 10\n0.0\n 20\n0.0\n 11\n1.0\n 21\n1.0\n"
for data, name in (
    (("  0\nSECTION\n  2\nENTITIES\n" + LINE * 1_000_000).encode()[:19_900_000], "a.dxf"),
    (("<svg>" + "<line/>" * 1_000_000).encode()[:3_990_000], "a.svg"),
    (pdf(b"0 0 m " + b"1 1 l 2 0 l " * 500_000 + b"S"), "a.pdf"),
    (b"piece,along,across\n" + b"a,1,2\n" * 600_000, "a.csv"),
    (b"[" + b"1," * 1_000_000 + b"1]", "a.json"),
):
    with contextlib.suppress(Unreadable):
        take_in(data, name)
# getrusage would also count what whoever started this process had: a child takes that over at first
status = Path("/proc/self/status").read_text()
print(next(int(line.split()[1]) // 1000 for line in status.splitlines() if line.startswith("VmHWM:")))
