"""Where the compiled engine is kept."""

from __future__ import annotations

import os
from pathlib import Path

_ENGINE = Path(__file__).parent / "core" / "lay" / "engine"


def keep_compiled(home: Path) -> None:
    """Keep compiled code under the home, where it can be written wherever the program was installed; unless set-up has
    compiled it beside the source, or the person has said where. To be called before the engine is imported."""
    if not any((_ENGINE / "__pycache__").glob("*.nbi")):
        os.environ.setdefault("NUMBA_CACHE_DIR", str(home / "compiled"))
