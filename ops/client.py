"""The page's client, made from the server as it is: the API's schema, and its types in TypeScript."""

from __future__ import annotations

import json
from pathlib import Path

from ops import say
from ops.places import GENERATED, PAGE, PYTHON, ROOT, RUN, fingerprint

STAMP = RUN / "client-ready"


def client(env: dict[str, str]) -> None:
    """Make the client where the server or the core has changed since.

    Args:
        env: in which node is found.
    """
    sources = fingerprint(ROOT / "server", ROOT / "ydrometer", PAGE / "package-lock.json")
    current = STAMP.exists() and STAMP.read_text() == sources and (GENERATED / "schema.d.ts").exists()
    if current:
        return
    with say.step("Client of the page"):
        GENERATED.mkdir(exist_ok=True)
        schema = GENERATED / "openapi.json"
        options: list[str | Path] = ["--fail-on-warn", "--validate", "--format", "openapi-json", "--file", schema]
        say.run([PYTHON, "manage.py", "spectacular", *options], cwd=ROOT)
        schema.write_text(json.dumps(json.loads(schema.read_text()), indent=1, sort_keys=True) + "\n")
        types: list[str | Path] = [
            "npx",
            "--no-install",
            "openapi-typescript",
            str(schema),
            "-o",
            str(GENERATED / "schema.d.ts"),
        ]
        say.run(types, cwd=PAGE, env=env)
        STAMP.write_text(sources)
