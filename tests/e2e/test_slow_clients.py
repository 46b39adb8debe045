"""Clients that are slow, stuck or broken hold nobody else up, and what is no request is refused like anything else."""

from __future__ import annotations

import contextlib
import json
import socket
import urllib.request
from collections.abc import Iterator

import pytest

HALF_HEAD = b"POST /api/shelf HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Ty"
HALF_BODY = (
    b'POST /api/shelf HTTP/1.1\r\nHost: {host}\r\nContent-Type: application/json\r\nContent-Length: 900\r\n\r\n{"te'
)


@contextlib.contextmanager
def _stuck(port: int, count: int, sent: bytes) -> Iterator[list[socket.socket]]:
    held = []
    try:
        for _ in range(count):
            one = socket.create_connection(("127.0.0.1", port), timeout=30)
            one.sendall(sent)
            held.append(one)
        yield held
    finally:
        for one in held:
            one.close()


def _spoken(port: int, sent: bytes) -> tuple[int, dict[str, str], bytes]:
    """A raw request's answer: status, headers, body."""
    with socket.create_connection(("127.0.0.1", port), timeout=30) as line:
        with contextlib.suppress(OSError):
            line.sendall(sent)
        told = b""
        with contextlib.suppress(OSError):
            while part := line.recv(65536):
                told += part
    head, _, body = told.partition(b"\r\n\r\n")
    first, *rest = head.decode().split("\r\n")
    return int(first.split()[1]), {k.lower(): v.strip() for k, _, v in (one.partition(":") for one in rest)}, body


def _serves(address: str) -> None:
    with urllib.request.urlopen(f"{address}/api/formulas", timeout=30) as answer:
        assert answer.status == 200


@pytest.mark.parametrize(("count", "sent"), [(100, HALF_HEAD), (100, HALF_BODY), (1000, b"")])
def test_half_sent_requests_and_idle_connections_stop_nobody(kestrel, count: int, sent: bytes) -> None:
    port = kestrel.port
    with _stuck(port, count, sent.replace(b"{host}", b"127.0.0.1:%d" % port)) as held:
        for _ in range(20):
            _serves(kestrel.address)
        # Nobody was thrown out for that: what was half sent can still be ended.
        if sent.startswith(b"POST") and sent != HALF_HEAD:
            held[0].sendall(b'xt":""}'.ljust(900 - 4))
            assert held[0].recv(65536).startswith(b"HTTP/1.1 200")


HOST = "Host: 127.0.0.1:{port}\r\n"


@pytest.mark.parametrize(
    ("request_line", "headers", "status"),
    [
        ("NOT A REQUEST", HOST, 400),
        ("GET /api/live HTTP/1.1", "", 400),
        ("GET /api/live HTTP/1.0", "", 400),
        ("GET /api/live HTTP/1.1", "Host: elsewhere.example\r\n", 403),
        ("GET /api/live HTTP/1.1", HOST + "X-Long: " + "x" * 20_000 + "\r\n", 431),
        ("POST /api/shelf HTTP/1.1", HOST + "Content-Type: application/json\r\nContent-Length: 1000001\r\n", 413),
        ("POST /api/shelf HTTP/1.1", HOST + "Content-Length: 99999999\r\n", 413),
        ("POST /api/shelf HTTP/1.1", HOST + "Content-Length: many\r\n", 400),
        ("POST /api/shelf HTTP/1.1", HOST + "Transfer-Encoding: gzip\r\n", 501),
    ],
)
def test_what_is_no_request_is_refused_in_words_with_the_headers_of_every_answer(
    kestrel, request_line: str, headers: str, status: int
) -> None:
    sent = f"{request_line}\r\n{headers.replace('{port}', str(kestrel.port))}Connection: close\r\n\r\n".encode()
    length = 1_000_001 if "1000001" in headers else 0
    got, told, body = _spoken(kestrel.port, sent + b"x" * length)
    assert got == status
    assert told["content-type"] == "application/problem+json"
    assert "default-src 'none'" in told["content-security-policy"]
    assert (told["x-content-type-options"], told["x-frame-options"]) == ("nosniff", "DENY")
    assert "server" not in told
    assert json.loads(body)["status"] == status


def test_ten_megabytes_that_come_in_chunks_are_too_large(kestrel) -> None:
    chunk = b"%x\r\n%s\r\n" % (65536, b"x" * 65536)
    head = f"POST /api/shelf HTTP/1.1\r\nHost: 127.0.0.1:{kestrel.port}\r\nContent-Type: application/json\r\n"
    sent = head.encode() + b"Transfer-Encoding: chunked\r\nConnection: close\r\n\r\n" + chunk * 160 + b"0\r\n\r\n"
    status, told, body = _spoken(kestrel.port, sent)
    assert (status, told["content-type"]) == (413, "application/problem+json")
    assert json.loads(body)["status"] == 413
    _serves(kestrel.address)
