"""The OpenAPI document, made from the code: ``python -m idle_selvage.api.document > docs/openapi.json``."""

from __future__ import annotations

import json
import tempfile
from pathlib import Path

from .app import create_app


def document() -> str:
    """The document as JSON text."""
    with tempfile.TemporaryDirectory() as folder:
        app = create_app(Path(folder), described=True)
        text = json.dumps(app.api_doc, indent=1, ensure_ascii=False) + "\n"
        app.services.database.close()
        return text


if __name__ == "__main__":
    print(document(), end="")
