"""The certificate with which phones are spoken to, and the authority of this library's own that
signs it, both made here at first use.

A phone that is told to trust the authority opens without a warning, and offline too. The authority
can sign for nothing but addresses of local networks (RFC 5280, name constraints), so whoever stole
it could not pass for any place of the internet.
"""

from __future__ import annotations

import os
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from ipaddress import ip_address, ip_network
from pathlib import Path

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

from ridgewind.library.local_networks import LOCAL_NETWORKS, Address

AUTHORITY_DAYS = 3650
SERVING_DAYS = 397
"""Browsers refuse longer ones (CA/Browser Forum, ballot SC-31)."""

RENEW_DAYS = 30
"""Left at which it is made anew."""

CLOCK_APART = timedelta(days=1)
"""A phone whose clock is behind finds a new certificate valid all the same."""


@dataclass(frozen=True)
class Certificate:
    """chain, key: files in PEM. authority: the one to trust, in PEM. fingerprint: SHA-256 of what
    the server shows, as browsers write it. ends_on: ISO date."""

    chain: Path
    key: Path
    authority: Path
    fingerprint: str
    ends_on: str


def certificate_for(folder: Path, address: str, *, now: datetime | None = None) -> Certificate:
    """The certificate for an address; made at first use, and anew where it ends soon or is for
    another address. folder: where it is kept, for its owner's eyes alone. now: aware of its zone;
    None is now. Raises OSError."""
    now = now or datetime.now(UTC)
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    authority, authority_key = folder / "authority.pem", folder / "authority-key.pem"
    chain, key = folder / "serving.pem", folder / "serving-key.pem"
    wanted = ip_address(address)
    signer = _read(authority) if authority_key.exists() else None
    if signer is None or _ends_soon(signer, now):
        signer = _make_authority(authority, authority_key, now)
        chain.unlink(missing_ok=True)
    serving = _read(chain) if key.exists() else None
    if serving is None or _ends_soon(serving, now) or not _is_for(serving, wanted):
        serving = _make_serving(chain, key, signer, authority_key, wanted, now)
    digest = serving.fingerprint(hashes.SHA256()).hex().upper()
    return Certificate(
        chain=chain,
        key=key,
        authority=authority,
        fingerprint=":".join(digest[k : k + 2] for k in range(0, len(digest), 2)),
        ends_on=serving.not_valid_after_utc.date().isoformat(),
    )


def _make_authority(path: Path, key_path: Path, now: datetime) -> x509.Certificate:
    key = ec.generate_private_key(ec.SECP256R1())
    name = _name(f"Ridgewind of this computer ({os.urandom(3).hex()})")
    signs_for = [x509.IPAddress(ip_network(net)) for net in LOCAL_NETWORKS]
    usage = x509.KeyUsage(
        digital_signature=False, content_commitment=False, key_encipherment=False,
        data_encipherment=False, key_agreement=False, key_cert_sign=True, crl_sign=True,
        encipher_only=False, decipher_only=False,
    )  # fmt: skip
    made = (
        _begun(name, name, key.public_key(), now, AUTHORITY_DAYS)
        .add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True)
        .add_extension(x509.NameConstraints(signs_for, None), critical=True)
        .add_extension(usage, critical=True)
        .add_extension(x509.SubjectKeyIdentifier.from_public_key(key.public_key()), critical=False)
        .sign(key, hashes.SHA256())
    )
    _write(key_path, _pem_of(key))
    _write(path, made.public_bytes(serialization.Encoding.PEM))
    return made


def _make_serving(
    path: Path, key_path: Path, signer: x509.Certificate, signer_key: Path, address: Address,
    now: datetime,
) -> x509.Certificate:  # fmt: skip
    key = ec.generate_private_key(ec.SECP256R1())
    signing = serialization.load_pem_private_key(signer_key.read_bytes(), password=None)
    assert isinstance(signing, ec.EllipticCurvePrivateKey)
    names = x509.SubjectAlternativeName([x509.IPAddress(address)])
    made = (
        _begun(_name("Ridgewind"), signer.subject, key.public_key(), now, SERVING_DAYS)
        .add_extension(names, critical=False)
        .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
        .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
        .add_extension(
            x509.AuthorityKeyIdentifier.from_issuer_public_key(signing.public_key()),
            critical=False,
        )
        .sign(signing, hashes.SHA256())
    )
    _write(key_path, _pem_of(key))
    chain = [one.public_bytes(serialization.Encoding.PEM) for one in (made, signer)]
    _write(path, b"".join(chain))
    return made


def _begun(
    name: x509.Name, issuer: x509.Name, key: ec.EllipticCurvePublicKey, now: datetime, days: int
) -> x509.CertificateBuilder:
    return (
        x509.CertificateBuilder()
        .subject_name(name)
        .issuer_name(issuer)
        .public_key(key)
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - CLOCK_APART)
        .not_valid_after(now - CLOCK_APART + timedelta(days=days))
    )


def _name(words: str) -> x509.Name:
    return x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, words)])


def _ends_soon(one: x509.Certificate, now: datetime) -> bool:
    return one.not_valid_after_utc - now < timedelta(days=RENEW_DAYS)


def _is_for(one: x509.Certificate, address: Address) -> bool:
    names = one.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    return address in names.get_values_for_type(x509.IPAddress)


def _read(path: Path) -> x509.Certificate | None:
    """The first certificate of a file; None where there is none, or a damaged one."""
    try:
        return x509.load_pem_x509_certificate(path.read_bytes())
    except (FileNotFoundError, ValueError):
        return None


def _pem_of(key: ec.EllipticCurvePrivateKey) -> bytes:
    return key.private_bytes(
        serialization.Encoding.PEM,
        serialization.PrivateFormat.PKCS8,
        serialization.NoEncryption(),
    )


def _write(path: Path, content: bytes) -> None:
    """Whole or not at all, for its owner's eyes alone."""
    half = path.with_suffix(".half")
    half.unlink(missing_ok=True)
    with os.fdopen(os.open(half, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "wb") as file:
        file.write(content)
    half.replace(path)
