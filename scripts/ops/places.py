"""Where things are kept below the project folder."""

from __future__ import annotations

from pathlib import Path

PROJECT = Path(__file__).resolve().parents[2]
STATE = PROJECT / ".vianda"
VENV = PROJECT / ".venv"
PYTHON = VENV / "bin" / "python"
TOOLS = PROJECT / ".tools"
FRONTEND = PROJECT / "frontend"
PAGES = FRONTEND / "dist"
LOCK_RUN = PROJECT / "requirements.lock"
LOCK_DEV = PROJECT / "requirements-dev.lock"
# Data files of a package whose own requirements (a web framework) are not wanted: listed, never resolved.
LOCK_DATA = PROJECT / "requirements-data.lock"
