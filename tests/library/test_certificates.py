"""Certificates for the local network: who signs what, for how long, kept by whom."""

from __future__ import annotations

import stat
from datetime import UTC, datetime, timedelta
from ipaddress import ip_address

import pytest
from cryptography import x509

from ridgewind.library.certificates import RENEW_DAYS, SERVING_DAYS, certificate_for
from ridgewind.library.local_networks import is_local

NOW = datetime(2026, 5, 30, 12, 0, tzinfo=UTC)


def serving(made) -> x509.Certificate:
    return x509.load_pem_x509_certificate(made.chain.read_bytes())


def authority(made) -> x509.Certificate:
    return x509.load_pem_x509_certificate(made.authority.read_bytes())


def test_the_certificate_is_for_its_address_and_signed_by_the_library(tmp_path):
    made = certificate_for(tmp_path / "network", "192.168.4.20", now=NOW)
    names = serving(made).extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    assert names.get_values_for_type(x509.IPAddress) == [ip_address("192.168.4.20")]
    serving(made).verify_directly_issued_by(authority(made))
    assert len(made.fingerprint) == 32 * 3 - 1
    for file in (tmp_path / "network").iterdir():
        assert stat.S_IMODE(file.stat().st_mode) == 0o600
    assert stat.S_IMODE((tmp_path / "network").stat().st_mode) == 0o700


def test_the_authority_signs_for_local_networks_alone(tmp_path):
    made = certificate_for(tmp_path, "192.168.4.20", now=NOW)
    limits = authority(made).extensions.get_extension_for_class(x509.NameConstraints)
    assert limits.critical
    nets = [one.value for one in limits.value.permitted_subtrees]
    assert any(ip_address("192.168.4.20") in net for net in nets if net.version == 4)
    assert not any(ip_address("93.184.216.34") in net for net in nets if net.version == 4)


def test_it_stays_the_same_until_it_ends_soon_or_the_address_changes(tmp_path):
    first = certificate_for(tmp_path, "10.0.0.4", now=NOW)
    assert certificate_for(tmp_path, "10.0.0.4", now=NOW + timedelta(days=200)) == first
    late = NOW + timedelta(days=SERVING_DAYS - RENEW_DAYS)
    renewed = certificate_for(tmp_path, "10.0.0.4", now=late)
    assert renewed.fingerprint != first.fingerprint
    assert renewed.ends_on > first.ends_on
    moved = certificate_for(tmp_path, "10.0.0.5", now=late)
    assert moved.fingerprint != renewed.fingerprint
    serving(moved).verify_directly_issued_by(authority(first))


def test_a_damaged_file_is_made_anew(tmp_path):
    first = certificate_for(tmp_path, "10.0.0.4", now=NOW)
    first.chain.write_bytes(b"-----BEGIN CERTIFICATE-----\nno\n")
    again = certificate_for(tmp_path, "10.0.0.4", now=NOW)
    assert again.fingerprint != first.fingerprint
    serving(again).verify_directly_issued_by(authority(again))


@pytest.mark.parametrize(
    ("address", "local"),
    [
        ("192.168.1.2", True), ("10.4.0.1", True), ("172.31.0.9", True), ("172.32.0.9", False),
        ("93.184.216.34", False), ("fd00::2", True), ("2001:4860::1", False), ("127.0.0.2", True),
    ],
)  # fmt: skip
def test_what_is_a_local_network(address, local):
    assert is_local(ip_address(address)) is local
