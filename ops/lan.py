"""Serving the local network: under which addresses, with which certificate, and what is told of it."""

from __future__ import annotations

import json
import shutil
import socket
import subprocess
from dataclasses import dataclass
from pathlib import Path

from ops import say
from ops.places import PYTHON, RUN
from ops.say import GiveUp

VALID_DAYS = 397
"""Longer ones some phones refuse."""
EVERYWHERE = "0.0.0.0"


@dataclass(frozen=True)
class Certificate:
    """A certificate made on this machine, which nobody but its owner vouches for."""

    file: Path
    key: Path

    @property
    def fingerprint(self) -> str:
        """By which it can be told from others' (SHA-256)."""
        output = say.run(["openssl", "x509", "-in", self.file, "-noout", "-fingerprint", "-sha256"])
        return output.strip().split("=", 1)[1]


@dataclass(frozen=True)
class Lan:
    """How the local network is served.

    Attributes:
        addresses: of this machine; the first one is told to people.
        port: the same for all.
        certificate: for HTTPS, None for plain HTTP.
    """

    addresses: tuple[str, ...]
    port: int
    certificate: Certificate | None

    @property
    def origins(self) -> list[str]:
        """Where browsers find it."""
        scheme = "https" if self.certificate else "http"
        return [f"{scheme}://{address}:{self.port}" for address in self.addresses]

    @property
    def env(self) -> dict[str, str]:
        """What the application has to know of it."""
        print_ = self.certificate.fingerprint if self.certificate else ""
        return {
            "YDROMETER_HOSTS": ",".join(self.addresses),
            "YDROMETER_ORIGINS": ",".join(self.origins),
            "YDROMETER_FINGERPRINT": print_,
        }

    @property
    def terminator(self) -> list[str | Path]:
        """The command that speaks HTTPS on the network's addresses, and hands on to the application."""
        assert self.certificate is not None
        return [
            PYTHON,
            "-m",
            "ops.terminator",
            str(self.port),
            self.certificate.file,
            self.certificate.key,
            *self.addresses,
        ]

    def tell(self) -> None:
        """Print the address, also as a QR code, and what to be careful of."""
        address = f"{self.origins[0]}/"
        print(f"\nOn the local network:  {address}")
        for other in self.origins[1:]:
            print(f"                 also:  {other}/")
        print(say.run([PYTHON, "-m", "segno.cli", "--compact", "--border", "2", address]))
        if self.certificate:
            print(
                "HTTPS with a certificate made on this machine: the phone asks once whether you trust it; its\n"
                f"fingerprint must be\n  {self.certificate.fingerprint}"
            )
        else:
            print(
                "Plain HTTP: whoever listens on this network can read passwords and designs. On a network that you\n"
                "do not trust, add --https."
            )


def local_network(port: int, *, https: bool) -> Lan:
    """The machine's own addresses, and a certificate for them where one is wanted.

    Raises:
        GiveUp: it is in no network.
    """
    listed = addresses()
    if not listed:
        raise GiveUp("this machine is in no network: join one first, or leave out --lan")
    return Lan(listed, port, certificate(listed) if https else None)


def addresses() -> tuple[str, ...]:
    """The machine's IPv4 addresses in its networks, the one that leads outside first."""
    listed = _listed()
    way_out = _way_out()
    return tuple(sorted(listed, key=lambda address: address != way_out))


def _listed() -> list[str]:
    ip = shutil.which("ip") or shutil.which("ip", path="/usr/sbin:/sbin")
    if ip is None:
        way_out = _way_out()
        return [way_out] if way_out else []
    output = subprocess.run([ip, "-j", "-4", "addr", "show", "up", "scope", "global"], capture_output=True, check=False)
    return [address["local"] for link in json.loads(output.stdout or b"[]") for address in link.get("addr_info", [])]


def _way_out() -> str | None:
    """The address that a packet to elsewhere would carry; none is sent."""
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        try:
            probe.connect(("192.0.2.1", 9))
        except OSError:
            return None
        address: str = probe.getsockname()[0]
        return None if address == EVERYWHERE else address


def certificate(names: tuple[str, ...]) -> Certificate:
    """A certificate for some addresses; made anew where they are others, or where it runs out within a month."""
    home = RUN / "certificate"
    pair, stamp = Certificate(home / "certificate.pem", home / "key.pem"), home / "for"
    lasts = (
        pair.file.exists()
        and not subprocess.run(
            ["openssl", "x509", "-in", str(pair.file), "-noout", "-checkend", str(30 * 86_400)],
            capture_output=True,
            check=False,
        ).returncode
    )
    if lasts and stamp.exists() and stamp.read_text() == ",".join(names):
        return pair
    home.mkdir(parents=True, exist_ok=True, mode=0o700)
    alternatives = ",".join([*(f"IP:{name}" for name in names), "IP:127.0.0.1", "DNS:localhost"])
    say.run(
        [
            "openssl",
            "req",
            "-x509",
            "-newkey",
            "ec",
            "-pkeyopt",
            "ec_paramgen_curve:prime256v1",
            "-nodes",
            "-keyout",
            pair.key,
            "-out",
            pair.file,
            "-days",
            str(VALID_DAYS),
            "-subj",
            "/CN=Ydrometer of this machine",
            "-addext",
            f"subjectAltName={alternatives}",
        ]
    )
    pair.key.chmod(0o600)
    stamp.write_text(",".join(names))
    return pair
