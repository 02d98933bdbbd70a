"""No file and no function outgrows its room; generated migrations aside."""

from __future__ import annotations

import ast
import subprocess
import sys
from pathlib import Path

MAX_FILE, MAX_FUNCTION = 300, 60
GENERATED = "/migrations/"


def _length(node: ast.FunctionDef) -> int:
    """Return a function's lines without its docstring: what it promises may be as long as it must."""
    first = node.body[0]
    has_doc = isinstance(first, ast.Expr) and isinstance(first.value, ast.Constant) and isinstance(first.value.value, str)
    doc = (first.end_lineno or 0) - first.lineno + 1 if has_doc else 0
    return (node.end_lineno or 0) - node.lineno + 1 - doc


def main() -> int:
    """Name what is too large."""
    listed = subprocess.run(["git", "ls-files", "-co", "--exclude-standard", "*.py"], check=True, capture_output=True, text=True).stdout.split()
    bad = []
    for name in listed:
        if GENERATED in name or not Path(name).exists():
            continue
        text = Path(name).read_text(encoding="utf-8")
        lines = text.count("\n")
        if lines > MAX_FILE:
            bad.append(f"{name}: {lines} lines, at most {MAX_FILE}")
        for node in ast.walk(ast.parse(text)):
            if isinstance(node, ast.FunctionDef) and _length(node) > MAX_FUNCTION:
                bad.append(f"{name}:{node.lineno} {node.name}: over {MAX_FUNCTION} lines")
    sys.stdout.write("".join(f"{b}\n" for b in bad))
    return bool(bad)


if __name__ == "__main__":
    raise SystemExit(main())
