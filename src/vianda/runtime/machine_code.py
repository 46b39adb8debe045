"""Keep the machine code of the simulation on disk, so that only the first process ever compiles it.

``python -m vianda.runtime.machine_code`` compiles all of it once.
"""

from __future__ import annotations

import hashlib
import shutil
import sys
from collections.abc import Iterable
from pathlib import Path

from vianda.core.heat import conduction
from vianda.core.heat.conduction import block, held, line, props, skin, slab

SOURCES = Path(conduction.__file__).parent
KEPT_IN = SOURCES / "__pycache__"
MODULES = (props, skin, line, slab, block, held)


def folder_name(sources: Iterable[Path]) -> str:
    """Where machine code made from these sources lies: another folder when a word of any has changed.

    The compiler looks only whether a function's own file has changed, not those whose functions went into its code.

    Examples
    --------
    >>> folder_name([]).startswith("machine-")
    True
    """
    digest = hashlib.blake2b(digest_size=8)
    for path in sorted(sources):
        digest.update(path.name.encode() + b"\0" + path.read_bytes())
    return f"machine-{digest.hexdigest()}"


def keep_on_disk() -> Path:
    """Have every compiled function of the simulation load its machine code from disk, or leave it there.

    Returns
    -------
    Path
        The folder. Call this before the first run.
    """
    from numba import config
    from numba.core.dispatcher import Dispatcher

    folder = KEPT_IN / folder_name(SOURCES.glob("*.py"))
    config.CACHE_DIR = str(folder)
    for module in MODULES:
        for found in vars(module).values():
            if isinstance(found, Dispatcher):
                found.enable_caching()
    return folder


def forget_older(folder: Path) -> None:
    """Remove machine code that was made from other states of the sources."""
    for other in KEPT_IN.glob("machine-*"):
        if other != folder:
            shutil.rmtree(other, ignore_errors=True)


def main() -> int:
    """Compile everything once and keep it."""
    from vianda.core.heat.conduction.warm import warm

    forget_older(keep_on_disk())
    warm()
    return 0


if __name__ == "__main__":
    sys.exit(main())
