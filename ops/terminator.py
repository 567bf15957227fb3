"""python -m ops.terminator PORT CERTIFICATE KEY ADDRESS...: HTTPS on some addresses, handed on to 127.0.0.1:PORT.

It only takes the encryption off. The application sees each client under an address of its own all the same: a client
at 192.168.1.23 comes from 127.168.1.23, an address of this machine, and no request needs to be read for that.
"""

from __future__ import annotations

import asyncio
import contextlib
import ssl
import sys

from server.config.lifeline import die_with_parent

PIECE = 65_536
"""Bytes handed on at a time."""
IDLE_S = 120.0
"""A connection on which nothing comes for so long is closed."""
UNREAD_S = 20.0
"""And one that reads nothing of what waits for it."""


async def hand_on(source: asyncio.StreamReader, to: asyncio.StreamWriter) -> None:
    """Everything from one side to the other, until the first ends."""
    with contextlib.suppress(OSError, asyncio.CancelledError):
        try:
            while data := await asyncio.wait_for(source.read(PIECE), IDLE_S):
                to.write(data)
                await asyncio.wait_for(to.drain(), UNREAD_S)
        except TimeoutError:
            to.transport.abort()
    with contextlib.suppress(OSError, RuntimeError):
        to.close()


def stands_for(client: str) -> str:
    """The address of this machine under which a client is seen."""
    return "127." + client.split(".", 1)[1]


async def serve(port: int, certificate: str, key: str, addresses: list[str]) -> None:
    """Until told to stop."""
    context = ssl.create_default_context(ssl.Purpose.CLIENT_AUTH)
    context.load_cert_chain(certificate, key)

    async def meet(reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
        client: str = writer.get_extra_info("peername")[0]
        try:
            inner = await asyncio.open_connection("127.0.0.1", port, local_addr=(stands_for(client), 0))
        except OSError:
            writer.close()
            return
        await asyncio.gather(hand_on(reader, inner[1]), hand_on(inner[0], writer))

    servers = [
        await asyncio.start_server(meet, address, port, ssl=context, ssl_handshake_timeout=10.0)
        for address in addresses
    ]
    await asyncio.gather(*(server.serve_forever() for server in servers))


if __name__ == "__main__":
    die_with_parent()
    chosen_port, chosen_certificate, chosen_key, *chosen_addresses = sys.argv[1:]
    asyncio.run(serve(int(chosen_port), chosen_certificate, chosen_key, chosen_addresses))
