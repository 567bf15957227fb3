"""Serving others from a host: with settings from the environment alone, checked before anything starts."""

from __future__ import annotations

import os
import signal
import socket
from collections.abc import Iterator, Mapping
from pathlib import Path
from urllib.parse import urlsplit

from ops import say, setup
from ops.places import PYTHON, ROOT, RUN
from ops.say import GiveUp
from ops.serving import HOST, SERVING, counting, interrupt, listen, parts_of, started
from ops.watching import adopt_orphans, look_after

SETTINGS = "server.config.production"
LEAST_SECRET = 50
"""Characters that Django wants of a secret key."""
EARLIER = RUN / "migrated-from"
"""How far each part of the database had been brought before the last upgrade."""


def faults(env: Mapping[str, str]) -> Iterator[str]:
    """What is missing or wrong in the environment of a host: what was given, and what would be right."""
    hosts = [host.strip() for host in env.get("ALLOWED_HOSTS", "").split(",")]
    if hosts == [""]:
        yield "ALLOWED_HOSTS is not set: the names under which browsers find it, as gears.example.org"
    elif any(host in ("*", "") or "/" in host or ":" in host for host in hosts):
        yield f'ALLOWED_HOSTS is "{env["ALLOWED_HOSTS"]}": names alone, with commas between, and no "*"'
    yield from _of_the_secret(env)
    address = urlsplit(env.get("DATABASE_URL", ""))
    if address.scheme not in ("postgres", "postgresql") or not address.hostname or not address.path.strip("/"):
        yield "DATABASE_URL is not set, or no postgresql://user@host:port/name"
    proxies = env.get("YDROMETER_PROXIES", "")
    if not proxies.isdigit() or int(proxies) < 1:
        yield (
            f'YDROMETER_PROXIES is "{proxies}": how many servers of yours stand in front; 1 with nginx alone. What '
            "they say of a browser's address is believed, and that it came by HTTPS"
        )


def _of_the_secret(env: Mapping[str, str]) -> Iterator[str]:
    how = f"{LEAST_SECRET} characters or more, the same on every host: python3 -c 'import secrets; "
    how += "print(secrets.token_urlsafe(60))' draws one"
    file = env.get("SECRET_KEY_FILE")
    try:
        secret = env.get("SECRET_KEY") or (Path(file).read_text().strip() if file else "")
    except OSError as error:
        yield f"SECRET_KEY_FILE {file} cannot be read ({error.strerror})"
        return
    if len(secret) < LEAST_SECRET:
        yield f"SECRET_KEY or SECRET_KEY_FILE has {len(secret)} characters: {how}"


def environment() -> dict[str, str]:
    """The environment of a host.

    Raises:
        GiveUp: with all that is wrong about it.
    """
    wrong = list(faults(os.environ))
    if wrong:
        raise GiveUp("it cannot serve others yet:\n" + "\n".join(f"  * {fault}" for fault in wrong))
    return {**os.environ, **SERVING, "DJANGO_SETTINGS_MODULE": SETTINGS, "YDROMETER_DEMO": "0"}


def serve(port: int, address: str) -> int:
    """Serve behind a server that speaks HTTPS, until told to stop. The database is left as it is."""
    for sign in (signal.SIGINT, signal.SIGTERM):
        signal.signal(sign, interrupt)
    env = environment()
    setup.set_up()
    waiting = _manage(env, "migrations_waiting").split()
    if waiting:
        raise GiveUp(f"the database waits for {', '.join(waiting)}: ./ydro backup FILE, then ./ydro migrate")
    adopt_orphans()
    env |= counting(HOST)
    listening = listen(port, address)
    HOST.note(port, address)
    parts = parts_of(env, listening)
    try:
        with started(parts, port, address):
            print(f"Ydrometer is ready on {address}:{port}, for what stands in front.", flush=True)
            tell_systemd()
            look_after(parts, None, HOST.log)
        return 0
    except KeyboardInterrupt:
        return 0
    finally:
        HOST.record.unlink(missing_ok=True)


def tell_systemd() -> None:
    """Where systemd started this and waits (`Type=notify`): that it serves now, by the protocol of sd_notify(3)."""
    address = os.environ.get("NOTIFY_SOCKET", "")
    if address:
        with socket.socket(socket.AF_UNIX, socket.SOCK_DGRAM) as telling:
            telling.sendto(b"READY=1", address.replace("@", "\0", 1))


def migrate(*, back: bool) -> int:
    """Bring the database up to this version, or back to how far it was before the last time.

    Back works from the version that went forward: it alone knows the way.
    """
    env = environment()
    setup.set_up()
    if back:
        if not EARLIER.exists():
            raise GiveUp(
                "nothing is known of an upgrade made from this checkout: ./ydro restore FILE brings a backup back"
            )
        print(_manage(env, "migrate_to", *EARLIER.read_text().split()), end="")
        EARLIER.unlink()
        return 0
    before = _manage(env, "migrate_to", "--list")
    outcome = _manage(env, "migrate_to")
    if outcome.strip():
        print(outcome, end="")
        if any(not line.endswith(".zero") for line in before.split()):
            EARLIER.write_text(before)
            print("· ./ydro migrate --back takes this back, from this version, and keeps what was entered meanwhile")
    else:
        print("· the database is of this version already")
    return 0


def _manage(env: dict[str, str], command: str, *arguments: str) -> str:
    return say.run([PYTHON, "manage.py", command, *arguments], env=env, cwd=ROOT)
