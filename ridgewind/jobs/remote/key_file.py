"""What a machine is given to work for a library: one small file, for its owner's eyes alone."""

from __future__ import annotations

import json
import ssl
from dataclasses import asdict, dataclass
from pathlib import Path
from urllib.parse import urlsplit

LOCAL_NAMES = {"127.0.0.1", "localhost", "::1"}


class KeyFileError(Exception):
    """A file is no key of a worker's."""


@dataclass(frozen=True)
class WorkerKey:
    """server: its address, "" where the library was open to no network. authority: certificate that
    signs for it, PEM, "" for none. queue: address of the broker, "" for none."""

    key: str
    server: str
    authority: str
    queue: str


def text_of(key: WorkerKey) -> str:
    """A key as the file that holds it."""
    return json.dumps({"ridgewind_worker": asdict(key)}, indent=1) + "\n"


def read(path: Path) -> WorkerKey:
    """The key in a file. Raises KeyFileError."""
    try:
        told = json.loads(path.read_text(encoding="utf-8"))["ridgewind_worker"]
        key = WorkerKey(**{name: str(told[name]) for name in WorkerKey.__dataclass_fields__})
    except OSError as error:
        raise KeyFileError(f"{path}: cannot be read ({error.strerror})") from error
    except (ValueError, KeyError, TypeError) as error:
        raise KeyFileError(
            f"{path}: is no worker's key; save it anew from Settings, Other computers"
        ) from error
    return key


def trusted(key: WorkerKey, server: str) -> ssl.SSLContext | None:
    """What vouches for a server; None for this machine's own, which is spoken to in the clear.
    Raises KeyFileError for any other that would be."""
    address = urlsplit(server)
    if address.scheme == "https":
        if not key.authority:
            raise KeyFileError(
                "this key was made while Ridgewind was closed to the network; open it in Settings, "
                "and save the key anew"
            )
        context = ssl.SSLContext(ssl.PROTOCOL_TLS_CLIENT)
        context.minimum_version = ssl.TLSVersion.TLSv1_2
        context.load_verify_locations(cadata=key.authority)
        return context
    if address.scheme == "http" and address.hostname in LOCAL_NAMES:
        return None
    raise KeyFileError(f"{server}: is not spoken to without TLS; give its https address")
