"""Which addresses belong to local networks."""

from __future__ import annotations

from ipaddress import IPv4Address, IPv6Address, ip_network

Address = IPv4Address | IPv6Address

LOCAL_NETWORKS = (
    "10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16", "100.64.0.0/10",
    "192.0.2.0/24", "127.0.0.0/8", "fc00::/7", "fe80::/10", "::1/128",
)  # fmt: skip


def is_local(address: Address) -> bool:
    """Whether an address belongs to a local network, for which a certificate may be made."""
    nets = (ip_network(one) for one in LOCAL_NETWORKS)
    return any(address in net for net in nets if net.version == address.version)
