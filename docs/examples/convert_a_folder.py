# %% [markdown]
# # A folder of pattern files, all into one DXF
# What is not understood of a file is told, and nothing is dropped in silence.

# %%
import sys
import tempfile
from pathlib import Path

from idle_selvage.formats.audit import Unreadable
from idle_selvage.formats.reading import take_in
from idle_selvage.formats.writing import write

example = Path(__file__).parents[2] / "web" / "public" / "example-pieces.svg"
folder = Path(sys.argv[1]) if len(sys.argv) > 1 else example.parent

pieces = []
for path in sorted(folder.glob("*.svg")) + sorted(folder.glob("*.dxf")):
    try:
        taken = take_in(path.read_bytes(), path.name)
    except Unreadable as fault:
        print(f"  {path.name}: {fault}")
        continue
    pieces += taken.pieces
    print(f"  {path.name}: {len(taken.pieces)} pieces, {len(taken.not_read)} things not understood")

# %%
with tempfile.TemporaryDirectory() as out:
    file = Path(out) / "all.dxf"
    file.write_bytes(write(pieces, "dxf"))
    again = take_in(file.read_bytes(), file.name)
    print(f"{len(again.pieces)} pieces in all, written as DXF and read back")
