"""What the pages know of other machines, and can have done."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from ridgewind.jobs.remote.leases import Leases


@dataclass(frozen=True)
class WorkersDesk:
    """leases: what is lent. broker: address of the broker, "" for none. reached: whether that
    answers, None where it is not known yet. rest: leaves measuring and rendering to other machines,
    or takes part again; resting: whether they are left to them."""

    leases: Leases
    broker: str = ""
    reached: Callable[[], bool | None] = lambda: None
    rest: Callable[[bool], None] = lambda _resting: None
    resting: Callable[[], bool] = lambda: False
