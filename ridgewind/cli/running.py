"""Start the server from a subcommand, with every refusal in one line."""

from __future__ import annotations

import signal

from ridgewind.cli.common import Refusal
from ridgewind.library.library import LibraryBusyError
from ridgewind.store.errors import NewerSchemaError
from ridgewind.web.server import PortInUseError, Start, run


def run_server(start: Start) -> None:
    """Serve until interrupted; raises Refusal where it cannot begin."""
    signal.signal(signal.SIGTERM, signal.default_int_handler)  # a service manager's way to stop
    try:
        run(start)
    except LibraryBusyError as error:
        text = f"{error}: another Ridgewind is using this library; stop it, or choose --data"
        raise Refusal(text) from None
    except PortInUseError as error:
        text = f"port {error}: something else listens there; choose another with --port"
        raise Refusal(text) from None
    except NewerSchemaError as error:
        raise Refusal(f"{start.library}: {error}") from None
    except OSError as error:
        text = f"{start.library}: cannot be used ({error.strerror}); choose another with --data"
        raise Refusal(text) from None
