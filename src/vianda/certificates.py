"""The kitchen's own certificate: an authority that telephones are told to trust, and what it vouches for.

A public authority vouches for no name of a kitchen's net, and browsers let a page keep a screen awake or work with the
line down only over TLS. The authority's key stays in its folder, and may vouch for nothing but this kitchen's names.
"""

from __future__ import annotations

import ipaddress
import os
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

AUTHORITY, AUTHORITY_KEY, SERVER = "kitchen-ca.crt", "kitchen-ca.key", "server.pem"
# Telephones take no certificate that holds longer than 825 days from an authority that was added by hand.
AUTHORITY_LASTS, SERVER_LASTS, RENEWED_BEFORE = timedelta(days=3650), timedelta(days=365), timedelta(days=30)


@dataclass(frozen=True, slots=True)
class Certificate:
    """Where the files are, for which names they hold and until when, and the authority's SHA-256 to compare."""

    authority: Path
    server: Path
    names: tuple[str, ...]
    until: datetime
    fingerprint: str


def kitchen_certificate(folder: Path, names: Sequence[str], *, now: datetime | None = None) -> Certificate:
    """The certificate of a kitchen for these names and addresses; made when it is missing, short or of other names.

    Parameters
    ----------
    folder : Path
        Where it is kept; made for its owner alone.
    names : sequence of str
        Names and IP addresses under which the kitchen is opened, at least one.

    Raises
    ------
    ValueError
        A name or an address that is not of a kitchen's own net: one such would have browsers refuse the whole.
    """
    moment = now or datetime.now(UTC)
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    authority, key = _authority(folder, moment)
    server = folder / SERVER
    standing = _standing(server)
    wanted = tuple(dict.fromkeys(names))
    for name in wanted:
        _check(name)
    fits = (
        standing is not None
        and _names_of(standing) == wanted
        and standing.not_valid_after_utc - RENEWED_BEFORE > moment
        and standing.issuer == authority.subject
        and _vouched(standing, authority)
    )
    if not fits:
        standing = _server(folder, authority, key, wanted, moment)
    assert standing is not None
    fingerprint = authority.fingerprint(hashes.SHA256()).hex(":").upper()
    return Certificate(folder / AUTHORITY, server, wanted, standing.not_valid_after_utc, fingerprint)


def _authority(folder: Path, now: datetime) -> tuple[x509.Certificate, ec.EllipticCurvePrivateKey]:
    kept, kept_key = folder / AUTHORITY, folder / AUTHORITY_KEY
    if kept.exists() and kept_key.exists():
        authority = x509.load_pem_x509_certificate(kept.read_bytes())
        key = serialization.load_pem_private_key(kept_key.read_bytes(), password=None)
        if isinstance(key, ec.EllipticCurvePrivateKey) and authority.not_valid_after_utc - SERVER_LASTS > now:
            return authority, key
    key = ec.generate_private_key(ec.SECP256R1())
    name = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, f"Vianda kitchen {now:%Y-%m-%d}")])
    authority = (
        x509.CertificateBuilder()
        .subject_name(name)
        .issuer_name(name)
        .public_key(key.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - timedelta(minutes=5))
        .not_valid_after(now + AUTHORITY_LASTS)
        .add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True)
        .add_extension(_usage(signs=True), critical=True)
        .add_extension(x509.SubjectKeyIdentifier.from_public_key(key.public_key()), critical=False)
        # It may vouch for names of a kitchen's net, never for a bank's.
        .add_extension(x509.NameConstraints(_kitchen_names(), None), critical=True)
        .sign(key, hashes.SHA256())
    )
    _write(kept_key, _private(key))
    _write(kept, authority.public_bytes(serialization.Encoding.PEM), mode=0o644)
    return authority, key


def _kitchen_names() -> list[x509.GeneralName]:
    names = [x509.DNSName(one) for one in ("local", "localhost", "lan", "home.arpa", "internal", "home", _host())]
    nets = ("10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16", "127.0.0.0/8", "fc00::/7", "fe80::/10")
    return [*names, *(x509.IPAddress(ipaddress.ip_network(net)) for net in (*nets, "::1/128"))]


def _check(name: str) -> None:
    general = _general(name)
    for permitted in _kitchen_names():
        if isinstance(general, x509.IPAddress) and isinstance(permitted, x509.IPAddress):
            within = ipaddress.ip_address(str(general.value)) in ipaddress.ip_network(str(permitted.value))
        else:
            within = type(general) is type(permitted) and f".{general.value}".endswith(f".{permitted.value}")
        if within:
            return
    raise ValueError(f"{name} is not of a kitchen's own net")


def _host() -> str:
    return os.uname().nodename.lower() or "localhost"


def _server(
    folder: Path, authority: x509.Certificate, key: ec.EllipticCurvePrivateKey, names: tuple[str, ...], now: datetime
) -> x509.Certificate:
    own = ec.generate_private_key(ec.SECP256R1())
    made = (
        x509.CertificateBuilder()
        .subject_name(x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, "Vianda")]))
        .issuer_name(authority.subject)
        .public_key(own.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - timedelta(minutes=5))
        .not_valid_after(now + SERVER_LASTS)
        .add_extension(x509.SubjectAlternativeName([_general(name) for name in names]), critical=False)
        .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
        .add_extension(_usage(signs=False), critical=True)
        .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
        .add_extension(
            x509.AuthorityKeyIdentifier.from_issuer_public_key(authority.public_key()),  # type: ignore[arg-type]
            critical=False,
        )
        .sign(key, hashes.SHA256())
    )
    _write(folder / SERVER, made.public_bytes(serialization.Encoding.PEM) + _private(own))
    return made


def _general(name: str) -> x509.GeneralName:
    try:
        return x509.IPAddress(ipaddress.ip_address(name))
    except ValueError:
        return x509.DNSName(name)


def _names_of(certificate: x509.Certificate) -> tuple[str, ...]:
    held = certificate.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    return tuple(str(one.value) for one in held)


def _vouched(certificate: x509.Certificate, authority: x509.Certificate) -> bool:
    try:
        certificate.verify_directly_issued_by(authority)
    except (ValueError, TypeError):
        return False
    except Exception as error:  # noqa: BLE001
        # The package's own name for a signature that does not fit is of another module in each version.
        return "InvalidSignature" not in type(error).__name__
    return True


def _standing(server: Path) -> x509.Certificate | None:
    try:
        return x509.load_pem_x509_certificate(server.read_bytes())
    except (OSError, ValueError):
        return None


def _usage(*, signs: bool) -> x509.KeyUsage:
    return x509.KeyUsage(
        digital_signature=not signs, content_commitment=False, key_encipherment=False, data_encipherment=False,
        key_agreement=False, key_cert_sign=signs, crl_sign=signs, encipher_only=False, decipher_only=False,
    )  # fmt: skip


def _private(key: ec.EllipticCurvePrivateKey) -> bytes:
    plain = serialization.NoEncryption()
    return key.private_bytes(serialization.Encoding.PEM, serialization.PrivateFormat.PKCS8, plain)


def _write(path: Path, content: bytes, *, mode: int = 0o600) -> None:
    part = path.with_suffix(".part")
    descriptor = os.open(part, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, mode)
    with os.fdopen(descriptor, "wb") as file:
        file.write(content)
    part.chmod(mode)
    part.replace(path)
