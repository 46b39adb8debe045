"""What stands before Vianda on the kitchen's net: haproxy, which speaks TLS and says to it who asks.

It is taken from Debian's package without being installed, so that no service of it begins on this machine.
"""

from __future__ import annotations

import ipaddress
import json
import os
import socket
import subprocess
from dataclasses import dataclass
from pathlib import Path

from ops import install
from ops.mariadb import die_with_parent
from ops.tell import refuse
from ops.unpacked import environment_of, unpacked

# haproxy and the libraries it wants, which a machine without it lacks.
PACKAGES = ("haproxy", "liblua5.3-0", "libopentracing1", "libopentracing-c-wrapper0")
MOST_CONNECTIONS = 1000
# Nets that are nobody's in the world (RFC 1918, RFC 3927): those that the kitchen's authority may vouch for.
_OWN = ("10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16")
OWN_NETS = tuple(ipaddress.ip_network(net) for net in _OWN)

CONFIG = """global
    maxconn {most}
    ssl-default-bind-options ssl-min-ver TLSv1.2
    ssl-default-bind-ciphers ECDHE+AESGCM:ECDHE+CHACHA20
defaults
    mode http
    option http-buffer-request
    timeout connect 5s
    timeout client 60s
    timeout server 300s
    timeout http-request 20s
frontend kitchen
    bind {address} ssl crt {server} alpn http/1.1
    # What a client says of itself is replaced: these are ours to say.
    http-request set-header X-Forwarded-For %[src]
    http-request set-header X-Forwarded-Proto https
    http-request del-header X-Forwarded-Host
    http-request del-header X-Forwarded-Prefix
    http-request del-header X-Forwarded-Port
    http-request del-header Forwarded
    default_backend vianda
backend vianda
    server one 127.0.0.1:{port} maxconn 500
"""


@dataclass(frozen=True, slots=True)
class Front:
    """A program and what it needs to run."""

    program: str
    environment: dict[str, str]


def find_front() -> Front:
    """haproxy of this machine, or unpacked beside the project."""
    own = install.find("haproxy")
    if own is not None:
        return Front(own, dict(os.environ))
    folder = unpacked("haproxy", PACKAGES, holds="usr/sbin/haproxy")
    return Front(str(folder / "usr" / "sbin" / "haproxy"), environment_of(folder))


def addresses() -> list[str]:
    """Addresses of this machine on nets of its own, and none of the world's."""
    found: list[str] = []
    listed = subprocess.run(
        ["ip", "-json", "address"], capture_output=True, text=True, check=False
    ) if install.find("ip") else None  # fmt: skip
    if listed is not None and listed.returncode == 0:
        held = [a["local"] for link in json.loads(listed.stdout) for a in link.get("addr_info", []) if "local" in a]
    else:
        held = [info[4][0] for info in socket.getaddrinfo(socket.gethostname(), None)]
    for text in map(str, held):
        address = ipaddress.ip_address(text.split("%")[0])
        if any(address in net for net in OWN_NETS) and text not in found:
            found.append(text)
    return found


def names() -> list[str]:
    """What the kitchen is opened under: the machine's name on its net, and its addresses."""
    host = socket.gethostname().lower().split(".")[0]
    return [f"{host}.local", *addresses(), "localhost", "127.0.0.1"]


def start_front(front: Front, folder: Path, *, server: Path, address: str, port: int) -> subprocess.Popen[bytes]:
    """Serve ``port`` of this machine as TLS at an address."""
    config = folder / "haproxy.cfg"
    config.write_text(CONFIG.format(most=MOST_CONNECTIONS, address=address, server=server, port=port))
    checked = subprocess.run(
        [front.program, "-c", "-q", "-f", config], env=front.environment, capture_output=True, text=True, check=False
    )
    if checked.returncode != 0:
        said = (checked.stderr.strip().splitlines() or ["no message"])[-1]
        refuse(f"haproxy does not take its settings: {said[:200]}.", f"See {config}.")
    with (folder / "haproxy.log").open("ab") as log:
        return subprocess.Popen(
            [front.program, "-db", "-f", str(config)], env=front.environment, stdin=subprocess.DEVNULL, stdout=log,
            stderr=log, start_new_session=True, preexec_fn=die_with_parent,
        )  # fmt: skip
