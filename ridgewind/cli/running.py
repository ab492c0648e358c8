"""Start the server from a subcommand, with every refusal in one line."""

from __future__ import annotations

import signal

from ridgewind.cli.common import Refusal
from ridgewind.library.library import LibraryBusyError
from ridgewind.media.errors import MediaError
from ridgewind.store.errors import BusyError, DamagedError, NewerSchemaError, NoRoomError
from ridgewind.web.server import LibraryGoneError, PortInUseError, run
from ridgewind.web.start import Start

DAMAGED = (
    "is damaged, or no library of Ridgewind's; put back a copy made earlier, or move it and the "
    "files beside it away: the films in the folder are then taken in and measured anew"
)
NO_ROOM = (
    "cannot be written: the disk is full, or not yours to write; free some space, or choose "
    "another folder with --data"
)


def run_server(start: Start) -> None:
    """Serve until interrupted; raises Refusal where it cannot begin."""
    signal.signal(signal.SIGTERM, signal.default_int_handler)  # a service manager's way to stop
    try:
        run(start)
    except LibraryBusyError as error:
        text = f"{error}: another Ridgewind is using this library; stop it, or choose --data"
        raise Refusal(text) from None
    except LibraryGoneError as error:
        text = f"{start.library}: this library was moved to {error}, which is not here; connect it"
        raise Refusal(text) from None
    except PortInUseError as error:
        text = f"port {error}: something else listens there; choose another with --port"
        raise Refusal(text) from None
    except NewerSchemaError as error:
        raise Refusal(f"{start.library}: {error}") from None
    except DamagedError:
        raise Refusal(f"{start.library / 'library.db'}: {DAMAGED}") from None
    except BusyError:
        text = (
            f"{start.library / 'library.db'}: another program holds it; close that, and start again"
        )
        raise Refusal(text) from None
    except (NoRoomError, MediaError):
        raise Refusal(f"{start.library}: {NO_ROOM}") from None
    except OSError as error:
        text = f"{start.library}: cannot be used ({error.strerror}); choose another with --data"
        raise Refusal(text) from None
