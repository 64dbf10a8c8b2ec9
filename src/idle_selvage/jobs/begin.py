"""``python -m idle_selvage.jobs.begin HOME SERVER …``: a worker that ends with its server from its first moment on,
also while it still loads what it needs."""

from __future__ import annotations

import sys

from .orphan import leave_with_parent

if __name__ == "__main__":
    leave_with_parent(int(sys.argv[2]))
    # seconds on a busy machine
    from .worker import main

    main()
