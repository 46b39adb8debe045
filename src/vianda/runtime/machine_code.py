"""Keep the machine code of the simulation on disk, so that only the first process ever compiles it.

``python -m vianda.runtime.machine_code`` compiles all of it once. It lies beside the sources; where those are only
read (a service of the system, a container), in the folder that ``VIANDA_MACHINE_CODE`` names.
"""

from __future__ import annotations

import hashlib
import logging
import os
import shutil
import sys
import tempfile
from collections.abc import Iterable
from pathlib import Path

from vianda.core.heat import conduction
from vianda.core.heat.conduction import block, held, line, props, skin, slab

SOURCES = Path(conduction.__file__).parent
KEPT_IN = Path(os.environ.get("VIANDA_MACHINE_CODE") or SOURCES / "__pycache__")
MODULES = (props, skin, line, slab, block, held)
_LOG = logging.getLogger("vianda")


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


def can_be_kept(folder: Path) -> bool:
    """Whether something can be written there; the folder is made where it is not there yet."""
    try:
        folder.mkdir(parents=True, exist_ok=True)
        tempfile.TemporaryFile(dir=folder).close()
    except OSError:
        return False
    return True


def keep_on_disk() -> Path | None:
    """Have every compiled function of the simulation load its machine code from disk, or leave it there.

    Returns
    -------
    Path | None
        The folder; None where nothing can be written: then each process compiles for itself, which the log says.
        Call this before the first run.
    """
    from numba import config
    from numba.core.dispatcher import Dispatcher

    folder = KEPT_IN / folder_name(SOURCES.glob("*.py"))
    if not can_be_kept(folder):
        _LOG.warning(
            "machine code cannot be kept in %s: each process makes its own, which takes most of a minute;"
            " VIANDA_MACHINE_CODE names another folder",
            folder,
        )
        return None
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
    """Compile everything once and keep it; 1 where it cannot be kept."""
    from vianda.core.heat.conduction.warm import warm

    folder = keep_on_disk()
    if folder is None:
        return 1
    forget_older(folder)
    warm()
    return 0


if __name__ == "__main__":
    sys.exit(main())
