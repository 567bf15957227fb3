"""Somebody who uses the application over HTTP, from an address of their own on the loopback network."""

from __future__ import annotations

import http.client
import json
import time
from dataclasses import dataclass
from http.cookies import SimpleCookie
from typing import Any

PASSWORD = "rivets-and-rope-7"


@dataclass(frozen=True)
class Answer:
    """A status, 0 where there was no answer; what came with it; and how long it took, s."""

    status: int
    text: bytes
    taken: float

    @property
    def json(self) -> Any:
        return json.loads(self.text)


class Visitor:
    """One browser's worth of cookies and one connection, opened anew where it broke."""

    def __init__(self, port: int, address: str = "127.0.0.1", limit: float = 60.0) -> None:
        self.port, self.address, self.limit = port, address, limit
        self.cookies: dict[str, str] = {}
        self.connection: http.client.HTTPConnection | None = None

    def send(self, method: str, path: str, body: Any = None, headers: dict[str, str] | None = None) -> Answer:
        """One request; a connection that does not answer is an answer of status 0."""
        begun = time.perf_counter()
        try:
            return self._send(method, path, body, headers or {}, begun)
        except (OSError, http.client.HTTPException):
            self.close()
            return Answer(0, b"", time.perf_counter() - begun)

    def _send(self, method: str, path: str, body: Any, headers: dict[str, str], begun: float) -> Answer:
        if self.connection is None:
            self.connection = http.client.HTTPConnection(
                "127.0.0.1", self.port, timeout=self.limit, source_address=(self.address, 0)
            )
        own = {
            "Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items()),
            "Content-Type": "application/json",
            "X-CSRFToken": self.cookies.get("csrftoken", ""),
        }
        sent = body if body is None or isinstance(body, bytes) else json.dumps(body).encode()
        self.connection.request(method, path, sent, {**own, **headers})
        found = self.connection.getresponse()
        text = found.read()
        for line in found.headers.get_all("Set-Cookie") or []:
            self.cookies |= {name: morsel.value for name, morsel in SimpleCookie(line).items()}
        return Answer(found.status, text, time.perf_counter() - begun)

    def ask(self, path: str) -> Any:
        """What an address holds, asked again until it is told."""
        for _ in range(100):
            answer = self.send("GET", path)
            if answer.status == 200:
                return answer.json
            time.sleep(0.1)
        raise SystemExit(f"no answer from {path}: {answer.status}")

    def close(self) -> None:
        if self.connection is not None:
            self.connection.close()
        self.connection = None

    def sign_up(self, name: str) -> Visitor:
        """A new account, signed in."""
        self.send("GET", "/api/session/")
        answer = self.send("POST", "/api/accounts/", {"username": name, "password": PASSWORD})
        assert answer.status == 201, (answer.status, answer.text[:300])
        return self

    def sign_in(self, name: str, password: str = PASSWORD, **headers: str) -> Answer:
        if "csrftoken" not in self.cookies:
            self.send("GET", "/api/session/")
        return self.send("POST", "/api/accounts/sign-in/", {"username": name, "password": password}, headers)

    def workshop(self) -> str:
        """The first of one's workshops."""
        return str(self.send("GET", "/api/workshops/").json[0]["id"])

    def add_vehicle(self, document: dict[str, Any]) -> str:
        answer = self.send("POST", f"/api/workshops/{self.workshop()}/vehicles/", {"document": document})
        assert answer.status == 201, (answer.status, answer.text[:300])
        return str(answer.json["id"])
