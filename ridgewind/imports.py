"""How modules are imported where a start has to be quick."""

from __future__ import annotations

import gc
from collections.abc import Iterator
from contextlib import contextmanager


@contextmanager
def uncollected() -> Iterator[None]:
    """Import without looking for garbage meanwhile, which takes a tenth of it and finds none: what
    is imported stays. Nor is it looked through later."""
    gc.disable()
    try:
        yield
    finally:
        gc.freeze()
        gc.enable()
