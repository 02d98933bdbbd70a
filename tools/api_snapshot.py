"""The schemas of the API and of the open formats as reviewed snapshots: written by ``./dev api``, compared by ``./test`` (with --check)."""

from __future__ import annotations

import json
import os
import subprocess
import sys
from importlib import import_module
from pathlib import Path

import django
from spindle.formats.sheet_schema import console_schema, sheet_schema

ROOT = Path(__file__).resolve().parents[1]
SNAPSHOT = ROOT / "backend" / "api" / "openapi.json"
FORMATS = ROOT / "docs" / "formats"
TYPES = ROOT / "web" / "src" / "api" / "schema.d.ts"
BOUNDS = ROOT / "web" / "src" / "api" / "bounds.ts"
KEPT = ("minLength", "maxLength", "minimum", "maximum")


def current() -> str:
    """Return the schema as the code has it now."""
    django.setup()
    api = import_module("api.main").api

    return json.dumps(api.get_openapi_schema(), indent=1, sort_keys=True) + "\n"


def current_sheet() -> str:
    """Return the schema of the drive sheet as the code has it now."""
    return json.dumps(sheet_schema(), indent=1, ensure_ascii=False) + "\n"


def current_console() -> str:
    """Return the schema of the console's sheet as the code has it now."""
    return json.dumps(console_schema(), indent=1, ensure_ascii=False) + "\n"


def current_shop() -> str:
    """Return the schema of a shop's archive as the code has it now."""
    django.setup()
    return json.dumps(import_module("apps.exchange.schema").schema(), indent=1, ensure_ascii=False) + "\n"


def current_bounds() -> str:
    """Return what the API bounds in each body that it takes, as the forms read it."""
    bodies = json.loads(current())["components"]["schemas"]
    found = {name: {field: {k: spec[k] for k in KEPT if k in spec} for field, spec in own.get("properties", {}).items()} for name, own in bodies.items()}
    kept = {name: {f: b for f, b in fields.items() if b} for name, fields in found.items() if name.endswith("In") or "do" in bodies[name].get("properties", {})}
    head = "/* What the API bounds in each body that it takes. Made by ./dev api: do not edit. */\n"
    return f"{head}export const BOUNDS = {json.dumps({n: f for n, f in kept.items() if f}, indent=1)} as const\n"


MADE = {
    SNAPSHOT: current,
    FORMATS / "sheet.schema.json": current_sheet,
    FORMATS / "console.schema.json": current_console,
    FORMATS / "shop.schema.json": current_shop,
    BOUNDS: current_bounds,
}
"""Each file, and what it is made by."""


def main(*, is_check: bool) -> int:
    """Write the snapshots, or say whether they and the front end's types are current."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
    for file, now in MADE.items():
        if not is_check:
            file.write_text(now(), encoding="utf-8")
        elif not file.exists() or file.read_text(encoding="utf-8") != now():
            sys.stderr.write(f"{file.relative_to(ROOT)} is not what the code says: run ./dev api and look at the difference\n")
            return 1
    if not is_check:
        return 0
    made = ROOT / ".data" / "schema.d.ts"
    tool = ROOT / "web" / "node_modules" / ".bin" / "openapi-typescript"
    subprocess.run([tool, SNAPSHOT, "-o", made, "--default-non-nullable=false"], check=True, capture_output=True)
    if made.read_bytes() != TYPES.read_bytes():
        sys.stderr.write("web/src/api/schema.d.ts does not fit the API: run ./dev api\n")
        return 1
    return 0


if __name__ == "__main__":
    raise SystemExit(main(is_check="--check" in sys.argv))
