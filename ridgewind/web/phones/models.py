"""Requests and responses of opening to phones."""

from __future__ import annotations

from pydantic import Field

from ridgewind.web.models import Model, RowId, Strict


class OpenAsk(Strict):
    """address: one of those that are offered."""

    address: str = Field(min_length=2, max_length=60)


class PhonePath(Model):
    phone_id: RowId


class PhoneLine(Model):
    """seen_at: ISO moment at which it was last here."""

    id: int
    name: str
    paired_at: str
    seen_at: str


class CodeAnswer(Model):
    """digits: what the phone is to show; good for left_s more seconds and so many tries."""

    digits: str
    left_s: float
    tries: int


class OpeningAnswer(Model):
    """fingerprint: SHA-256 of the certificate, to be compared on the phone. left_s: until it closes
    by itself while no phone comes."""

    address: str
    fingerprint: str
    certificate_ends_on: str
    left_s: float


class NetworkAnswer(Model):
    """addresses: where it could be opened. opening, code: null where there is none."""

    addresses: list[str]
    opening: OpeningAnswer | None
    code: CodeAnswer | None
    phones: list[PhoneLine]
