"""What Vianda is made of: a bill of materials (CycloneDX) and the licences, from the lock files.

Usage: .venv/bin/python scripts/bill_of_materials.py    (writes docs/bill-of-materials/)
"""

from __future__ import annotations

import json
import re
import subprocess
import sys
from importlib.metadata import PackageNotFoundError, metadata
from pathlib import Path
from typing import Any

sys.path.insert(0, str(Path(__file__).parent))

from ops import install, places

OUT = places.PROJECT / "docs" / "bill-of-materials"
# Each run would write another of these; where a package was fetched from is of the machine that fetched it.
OF_THE_MOMENT = ("serialNumber", "metadata", "externalReferences", "dependencies", "annotations")
UNKNOWN = "see its own files"


def locked() -> dict[str, str]:
    """Python packages of the running application, with their versions."""
    found = re.findall(r"^([A-Za-z0-9._-]+)==(\S+)", places.LOCK_RUN.read_text(), re.MULTILINE)
    return {name.lower(): version for name, version in found}


def _plain(content: Any) -> Any:
    if isinstance(content, dict):
        return {k: _plain(v) for k, v in content.items() if k not in OF_THE_MOMENT and k != "properties"}
    return [_plain(v) for v in content] if isinstance(content, list) else content


def _said(command: list[str | Path], cwd: Path) -> dict[str, Any]:
    done = subprocess.run([str(c) for c in command], cwd=cwd, capture_output=True, text=True, check=True)
    content: dict[str, Any] = json.loads(done.stdout)
    return content


def python_bill() -> dict[str, Any]:
    """By cyclonedx-bom, from the lock file."""
    uv = places.TOOLS / "uv" / "bin" / "uv"
    command: list[str | Path] = [
        uv, "run", "--no-project", "--with", "cyclonedx-bom==7.5.0", "cyclonedx-py", "requirements",
        "--output-format", "JSON", places.LOCK_RUN,
    ]  # fmt: skip
    bill = _plain(_said(command, places.PROJECT))
    for component in bill["components"]:
        component["licenses"] = [{"license": {"name": python_licence(component["name"])}}]
    return dict(bill)


def python_licence(name: str) -> str:
    """What a package says of its licence."""
    try:
        said = metadata(name)
    except PackageNotFoundError:
        return UNKNOWN
    if "License-Expression" in said:
        return str(said["License-Expression"])
    named = [c for c in said.get_all("Classifier") or [] if c.startswith("License :: ") and c.count("::") > 1]
    short = str(said["License"]).strip().split("\n")[0] if "License" in said else ""
    return " or ".join(c.split(" :: ")[-1] for c in named) or (short if 0 < len(short) < 60 else UNKNOWN)


def ships() -> dict[str, str]:
    """Packages whose code may be in the pages, with their versions: all but those that only build and test them."""
    lock = json.loads((places.FRONTEND / "package-lock.json").read_text())["packages"]
    aside = ("dev", "devOptional", "optional")
    kept = {path: one for path, one in lock.items() if path and not any(one.get(word) for word in aside)}
    return {path.split("node_modules/")[-1]: one["version"] for path, one in kept.items()}


def full_name(component: dict[str, Any]) -> str:
    """A package's name with its scope."""
    return f"{component['group']}/{component['name']}" if component.get("group") else str(component["name"])


def node_bill() -> dict[str, Any]:
    """By npm itself, of what ships in the pages."""
    npm = install.find("npm") or "npm"
    bill = _plain(_said([npm, "sbom", "--sbom-format", "cyclonedx"], places.FRONTEND))
    wanted = ships()
    bill["components"] = [c for c in bill["components"] if wanted.get(full_name(c)) == c.get("version")]
    return dict(bill)


def _licences(component: dict[str, Any]) -> str:
    held = [one.get("license", {}) for one in component.get("licenses", [])]
    named = [one.get("id") or one.get("name") or "" for one in held]
    named += [one["expression"] for one in component.get("licenses", []) if "expression" in one]
    return ", ".join(filter(None, named)) or UNKNOWN


def main() -> int:
    """Write both bills and the list of licences."""
    OUT.mkdir(exist_ok=True)
    rows = []
    for name, bill in (("python", python_bill()), ("pages", node_bill())):
        bill["components"].sort(key=lambda c: (c["name"].lower(), c.get("version", "")))
        (OUT / f"{name}.cdx.json").write_text(json.dumps(bill, indent=1, sort_keys=True) + "\n")
        rows += [(full_name(c), c.get("version", ""), name, _licences(c)) for c in bill["components"]]
    lines = ["# Licences of what ships", "", "Written by `scripts/bill_of_materials.py` from the lock files.", ""]
    lines += ["| package | version | of | licence |", "|---|---|---|---|"]
    lines += [f"| {a} | {b} | {c} | {d} |" for a, b, c, d in rows]
    (OUT / "licences.md").write_text("\n".join(lines) + "\n")
    print(f"{len(rows)} packages in {OUT.relative_to(places.PROJECT)}")
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
