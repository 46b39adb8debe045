"""The kitchen opened to its net: an own certificate, TLS by haproxy, and nobody in before an owner has a password."""

from __future__ import annotations

import http.client
import json
import socket
import ssl
import subprocess
import sys
import time
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from cryptography import x509

from ops import front
from ops.mariadb import free_port
from served import Served
from vianda.certificates import AUTHORITY_KEY, RENEWED_BEFORE, SERVER, SERVER_LASTS, kitchen_certificate

NAMES = ["galley.local", "192.168.1.20", "localhost", "127.0.0.1"]
WORDS = "seven herring crates at dawn"


def test_a_certificate_is_kept_while_it_fits_and_made_anew_for_other_names_or_in_time(tmp_path: Path) -> None:
    first = kitchen_certificate(tmp_path, NAMES)
    again = kitchen_certificate(tmp_path, NAMES)
    assert again == first
    other = kitchen_certificate(tmp_path, [*NAMES, "10.0.0.7"])
    assert other.fingerprint == first.fingerprint
    assert "10.0.0.7" in other.names
    end = datetime.now(UTC) + SERVER_LASTS
    before, after = end - RENEWED_BEFORE - timedelta(minutes=2), end - RENEWED_BEFORE + timedelta(minutes=2)
    assert kitchen_certificate(tmp_path, other.names, now=before).until == other.until
    assert kitchen_certificate(tmp_path, other.names, now=after).until > other.until


def test_only_its_owner_reads_the_keys(tmp_path: Path) -> None:
    kitchen_certificate(tmp_path / "tls", NAMES)
    for name in (AUTHORITY_KEY, SERVER):
        assert (tmp_path / "tls" / name).stat().st_mode & 0o077 == 0
    assert (tmp_path / "tls").stat().st_mode & 0o077 == 0


def test_the_authority_may_vouch_for_a_kitchens_net_and_for_no_bank(tmp_path: Path) -> None:
    made = kitchen_certificate(tmp_path, NAMES)
    authority = x509.load_pem_x509_certificate(made.authority.read_bytes())
    held = authority.extensions.get_extension_for_class(x509.NameConstraints)
    assert held.critical
    permitted = [str(one.value) for one in held.value.permitted_subtrees]
    assert "local" in permitted
    assert "192.168.0.0/16" in permitted
    assert not {"com", "", "0.0.0.0/0"} & set(permitted)
    # Telephones take none that holds longer from an authority that was added by hand.
    assert SERVER_LASTS.days <= 825


@pytest.mark.parametrize("name", ["192.0.2.2", "8.8.8.8", "100.64.0.1", "bank.example", "local.example", "172.32.0.1"])
def test_what_is_not_of_a_kitchens_net_is_refused_for_browsers_would_refuse_the_whole(
    tmp_path: Path, name: str
) -> None:
    with pytest.raises(ValueError, match="own net"):
        kitchen_certificate(tmp_path, ["galley.local", name])
    kitchen_certificate(tmp_path, ["galley.local", "172.31.255.254", "10.1.2.3", "localhost", "127.0.0.1"])


def test_only_addresses_of_own_nets_are_opened(monkeypatch: pytest.MonkeyPatch) -> None:
    held = [("192.0.2.2",), ("10.1.2.3",), ("127.0.0.1",), ("203.0.113.9",), ("192.168.1.20",), ("fe80::1%eth0",)]
    monkeypatch.setattr(front.install, "find", lambda _: None)
    monkeypatch.setattr(front.socket, "getaddrinfo", lambda *_: [(0, 0, 0, "", one) for one in held])
    assert front.addresses() == ["10.1.2.3", "192.168.1.20"]


def test_a_damaged_certificate_is_made_anew(tmp_path: Path) -> None:
    made = kitchen_certificate(tmp_path, NAMES)
    made.server.write_text("nothing")
    assert kitchen_certificate(tmp_path, NAMES).names == made.names
    assert "BEGIN CERTIFICATE" in made.server.read_text()


@pytest.fixture(scope="module")
def opened(tmp_path_factory: pytest.TempPathFactory) -> Iterator[tuple[Served, int, Path]]:
    """Vianda behind haproxy on another port of this machine."""
    folder = tmp_path_factory.mktemp("lan")
    made = kitchen_certificate(folder / "tls", NAMES)
    more = {"VIANDA_HOSTS": ",".join(NAMES), "VIANDA_TLS_CA": str(made.authority)}
    served = Served(folder, empty=False, more=more)
    port = free_port()
    process = front.start_front(
        front.find_front(), folder / "tls", server=made.server, address=f"127.0.0.1:{port}", port=served.port
    )
    deadline = time.monotonic() + 30
    while time.monotonic() < deadline:
        with socket.socket() as probe:
            if probe.connect_ex(("127.0.0.1", port)) == 0:
                break
        time.sleep(0.1)
    yield served, port, made.authority
    process.terminate()
    process.wait(10)
    served.close()


def _ask(port: int, authority: Path, method: str, path: str, body: object = None, **headers: str):
    """A request by TLS, trusting the kitchen's authority alone."""
    context = ssl.create_default_context(cafile=str(authority))
    # From another address than this machine's own, as a telephone's is.
    line = http.client.HTTPSConnection("127.0.0.1", port, context=context, timeout=60, source_address=("127.0.0.2", 0))
    sent = json.dumps(body).encode() if body is not None else None
    kind = {"Content-Type": "application/json"} if sent else {}
    line.request(method, path, sent, {"Host": f"galley.local:{port}"} | kind | headers)
    answer = line.getresponse()
    content = answer.read()
    line.close()
    return answer, json.loads(content) if content[:1] in (b"{", b"[") else content


def test_from_the_net_nobody_comes_in_before_an_owner_and_then_only_signed_in(opened) -> None:
    served, port, authority = opened
    answer, said = _ask(port, authority, "GET", "/api/formulas")
    assert (answer.status, said["type"].split(":")[-1]) == (403, "no-owner")
    body = {"name": "Ines Holm", "password": WORDS}
    # A name of this machine in the request does not make it one of this machine's.
    for host in (f"127.0.0.1:{port}", f"localhost:{port}", f"galley.local:{port}"):
        answer, said = _ask(port, authority, "POST", "/api/session/first-owner", body, Host=host,
                            **{"X-Forwarded-For": "127.0.0.1"})  # fmt: skip
        assert answer.status == 403, said
    command = ["vianda", "user", "add", "Odd Berg", "--role", "owner"]
    program = str(Path(sys.executable).parent / command[0])
    subprocess.run(
        [program, *command[1:]], env=served.environment, input="nine lanterns over the slipway\n", text=True,
        check=True, capture_output=True,
    )  # fmt: skip
    assert _ask(port, authority, "GET", "/api/formulas")[0].status == 401
    answer, said = _ask(port, authority, "POST", "/api/session",
                        {"name": "Odd Berg", "password": "nine lanterns over the slipway"})  # fmt: skip
    assert answer.status == 200, said
    cookie = answer.getheader("Set-Cookie")
    for mark in ("__Host-vianda=", "Secure", "HttpOnly", "SameSite=Strict"):
        assert mark in cookie
    assert answer.getheader("Strict-Transport-Security")
    mine = cookie.split(";")[0]
    answer, said = _ask(port, authority, "GET", "/api/formulas", Cookie=mine)
    assert answer.status == 200
    assert said
    assert _ask(port, authority, "GET", "/api/formulas", Cookie=mine, Host="elsewhere.example")[0].status == 403
    answer, content = _ask(port, authority, "GET", "/api/certificate")
    assert content == authority.read_bytes()


def test_an_old_protocol_and_an_unknown_authority_are_refused(opened) -> None:
    _, port, authority = opened
    old = ssl.SSLContext(ssl.PROTOCOL_TLS_CLIENT)
    old.check_hostname = False
    old.verify_mode = ssl.CERT_NONE
    with pytest.warns(DeprecationWarning, match="TLSv1_1"):
        old.maximum_version = ssl.TLSVersion.TLSv1_1
    with socket.create_connection(("127.0.0.1", port), timeout=20) as raw, pytest.raises((ssl.SSLError, OSError)):
        old.wrap_socket(raw)
    strict = ssl.create_default_context()
    with socket.create_connection(("127.0.0.1", port), timeout=20) as raw, pytest.raises(ssl.SSLCertVerificationError):
        strict.wrap_socket(raw, server_hostname="localhost")
    known = ssl.create_default_context(cafile=str(authority))
    with (
        socket.create_connection(("127.0.0.1", port), timeout=20) as raw,
        known.wrap_socket(raw, server_hostname="localhost") as held,
    ):
        assert held.version() in ("TLSv1.2", "TLSv1.3")
