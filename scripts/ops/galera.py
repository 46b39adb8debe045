"""Nodes of a MariaDB Galera cluster on loopback, for a demonstration: made, started, killed, brought back."""

from __future__ import annotations

import os
import re
import shutil
import signal
import subprocess
import time
from dataclasses import dataclass, field
from pathlib import Path

import pymysql

from ops.install import find
from ops.mariadb import PrivateMariaDB, die_with_parent, free_port
from ops.tell import refuse
from ops.unpacked import environment_of, unpacked

# The provider, the scripts that carry a node's data to another, and what they call.
PACKAGES = ("galera-4", "mariadb-server", "rsync", "libpopt0")
NODES = 3
JOIN_WAIT_S = 120.0

CLUSTER = """binlog_format=ROW
innodb_autoinc_lock_mode=2
wsrep_on=ON
wsrep_sync_wait=1
wsrep_provider={provider}
wsrep_cluster_name=vianda
wsrep_cluster_address=gcomm://{members}
wsrep_node_address=127.0.0.1:{base}
wsrep_node_name=node{number}
wsrep_sst_method=rsync
wsrep_sst_receive_address=127.0.0.1:{state}
wsrep_provider_options="base_port={base};gmcast.listen_addr=tcp://127.0.0.1:{base};ist.recv_addr=127.0.0.1:{changes};\
gcache.size=64M;evs.keepalive_period=PT0.3S;evs.inactive_check_period=PT0.3S;evs.suspect_timeout=PT1.5S;\
evs.inactive_timeout=PT4S;evs.install_timeout=PT4S"
"""


@dataclass
class Node:
    """One node: its folder, its ports, and its process while it runs."""

    number: int
    folder: Path
    sql_port: int
    base: int
    changes: int
    state: int
    process: subprocess.Popen[bytes] | None = None
    killed: int = 0
    came_back_s: list[float] = field(default_factory=list)

    def status(self, name: str, password: str) -> str:
        """What the node says of itself; "" while it says nothing."""
        try:
            with (
                pymysql.connect(
                    host="127.0.0.1", port=self.sql_port, user="vianda", password=password, connect_timeout=2,
                    read_timeout=2,
                ) as line,
                line.cursor() as cursor,
            ):  # fmt: skip
                cursor.execute("SHOW STATUS LIKE %s", (name,))
                row = cursor.fetchone()
                return str(row[1]) if row else ""
        except (pymysql.Error, OSError):
            return ""


class Cluster:
    """Three nodes under one folder."""

    def __init__(self, folder: Path) -> None:
        self._folder = folder
        self._unpacked = unpacked("galera", PACKAGES, holds="usr/lib/galera/libgalera_smm.so")
        self._environment = environment_of(self._unpacked)
        if os.geteuid() == 0:
            self._environment["PATH"] = f"{self._as_root()}{os.pathsep}{self._environment['PATH']}"
        self.nodes = [
            Node(n, folder / f"node{n}", free_port(), free_port(), free_port(), free_port())
            for n in range(1, NODES + 1)
        ]
        self.password = ""

    def _as_root(self) -> Path:
        """A folder with an rsync that stays root as a daemon; by itself it becomes nobody, who may write nothing."""
        folder = self._folder / "bin"
        folder.mkdir(parents=True)
        own = folder / "rsync"
        real = self._unpacked / "usr" / "bin" / "rsync"
        stays = "--dparam=uid=root --dparam=gid=root"
        own.write_text(f'#!/bin/sh\ncase "$*" in *--daemon*) exec {real} {stays} "$@";; esac\nexec {real} "$@"\n')
        own.chmod(0o755)
        return folder

    @property
    def _members(self) -> str:
        return ",".join(f"127.0.0.1:{node.base}" for node in self.nodes)

    def begin(self) -> None:
        """Make the first node, begin the cluster with it, and have the others join."""
        first = self.nodes[0]
        # Alone at first: it gets its tables of users and the kitchen's own user.
        alone = PrivateMariaDB(first.folder, port=first.sql_port)
        alone.start()
        self.password = alone.url.split(":")[2].split("@")[0]
        alone.stop()
        self._write(first)
        self.start(first, begins=True)
        for node in self.nodes[1:]:
            (node.folder / "db").mkdir(parents=True)
            for part in ("run", "tmp"):
                (node.folder / part).mkdir()
            self._write(node)
            self.start(node)

    def _write(self, node: Node) -> None:
        pattern = (self.nodes[0].folder / "my.cnf").read_text().split("binlog_format=")[0]
        own = pattern.replace(str(self.nodes[0].folder), str(node.folder))
        own = re.sub(r"port=\d+", f"port={node.sql_port}", own)
        own = re.sub(r"socket=\S+", f"socket={node.folder / 'run' / 'db.sock'}", own)
        cluster = CLUSTER.format(
            provider=self._unpacked / "usr" / "lib" / "galera" / "libgalera_smm.so", members=self._members,
            base=node.base, number=node.number, state=node.state, changes=node.changes,
        )  # fmt: skip
        (node.folder / "my.cnf").write_text(own + cluster)

    def start(self, node: Node, *, begins: bool = False) -> None:
        """Start a node and wait until it has all that the others have."""
        config = f"--defaults-file={node.folder / 'my.cnf'}"
        server = find("mariadbd") or "mariadbd"
        # Its own place among all changes, so that only those since then are sent.
        place = [] if begins else self._place(node, server, config)
        more = ["--wsrep-new-cluster"] if begins else place
        log = (node.folder / "out.log").open("ab")
        began = time.monotonic()
        with log:
            node.process = subprocess.Popen(
                [server, config, *more], env=self._environment, stdin=subprocess.DEVNULL, stdout=log, stderr=log,
                start_new_session=True, preexec_fn=die_with_parent,
            )  # fmt: skip
        while time.monotonic() < began + JOIN_WAIT_S and node.process.poll() is None:
            if node.status("wsrep_local_state_comment", self.password) == "Synced":
                node.came_back_s.append(time.monotonic() - began)
                return
            time.sleep(0.1)
        refuse(f"node {node.number} did not join.", f"See {node.folder / 'db.log'}.")

    def _place(self, node: Node, server: str, config: str) -> list[str]:
        if not (node.folder / "db" / "mysql").exists():
            return []
        subprocess.run(
            [server, config, "--wsrep-recover"], env=self._environment, capture_output=True, check=False, timeout=60
        )
        said = (node.folder / "db.log").read_text(errors="replace")
        found = re.findall(r"Recovered position:?\s*([0-9a-f-]{36}:-?\d+)", said)
        return [f"--wsrep_start_position={found[-1]}"] if found else []

    def kill(self, node: Node) -> None:
        """End it as a power cut does."""
        assert node.process is not None
        os.kill(node.process.pid, signal.SIGKILL)
        node.process.wait()
        node.process = None
        node.killed += 1

    def synced(self) -> list[Node]:
        """Nodes that serve."""
        return [
            n for n in self.nodes
            if n.process is not None and n.status("wsrep_local_state_comment", self.password) == "Synced"
        ]  # fmt: skip

    def end(self) -> None:
        """Stop them all, the first one last, and throw their folders away."""
        for node in reversed(self.nodes):
            if node.process is not None:
                node.process.terminate()
                try:
                    node.process.wait(30)
                except subprocess.TimeoutExpired:
                    node.process.kill()
                    node.process.wait()
        shutil.rmtree(self._folder, ignore_errors=True)
