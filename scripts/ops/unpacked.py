"""Programs out of Debian's packages, not installed, so that no service of theirs begins on this machine."""

from __future__ import annotations

import os
from collections.abc import Sequence
from pathlib import Path

from ops import install, places
from ops.tell import refuse, step


def unpacked(name: str, packages: Sequence[str], *, holds: str) -> Path:
    """The folder into which packages are unpacked; ``holds`` is a file that stands there when they are."""
    folder = places.TOOLS / name
    if (folder / holds).exists():
        return folder
    apt, dpkg = install.find("apt-get"), install.find("dpkg")
    if apt is None or dpkg is None:
        refuse(f"{name} is missing.", "Install it by hand, and see that no service of it runs.")
    downloads = folder.with_name(f"{name}-packages")
    downloads.mkdir(parents=True, exist_ok=True)
    with step(f"fetching {name}"):
        install.run([apt, "download", *packages], cwd=downloads, what=f"fetching {name}")
        for package in sorted(downloads.glob("*.deb")):
            install.run([dpkg, "-x", package, folder], cwd=downloads, what=f"unpacking {name}")
    return folder


def environment_of(*folders: Path) -> dict[str, str]:
    """The environment in which programs of such folders find themselves and their libraries."""
    libraries = [str(path) for folder in folders for path in sorted((folder / "usr" / "lib").glob("*-linux-*"))]
    programs = [str(folder / "usr" / part) for folder in folders for part in ("bin", "sbin")]
    path = os.pathsep.join([*programs, os.environ.get("PATH", ""), "/usr/sbin", "/sbin"])
    return {**os.environ, "LD_LIBRARY_PATH": os.pathsep.join(libraries), "PATH": path}
