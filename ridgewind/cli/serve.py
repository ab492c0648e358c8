"""The subcommand `ridgewind serve`: the application on the shooter's own library."""

from __future__ import annotations

from pathlib import Path

import click
from platformdirs import user_data_path

from ridgewind.cli.common import FOLDER, PORT, SETTINGS
from ridgewind.cli.running import run_server
from ridgewind.demo.mark import disown
from ridgewind.web.start import Start


@click.command(context_settings=SETTINGS)
@click.option("--data", type=FOLDER, help="Folder of the library.")
@click.option("--port", type=PORT, default=8421, show_default=True, help="0 takes a free one.")
@click.option("--open/--no-open", "open_browser", default=False, help="Open the browser.")
@click.option(
    "--network",
    is_flag=False,
    flag_value="",
    metavar="[ADDRESS]",
    help="Open to paired phones, on an address of this computer.",
)
@click.option(
    "--queue",
    envvar="RIDGEWIND_QUEUE",
    default="",
    metavar="redis://…",
    help="Broker that hands work to other machines.",
)
@click.option("--rest", is_flag=True, help="Leave measuring and rendering to other machines.")
def serve(
    data: Path | None, port: int, open_browser: bool, network: str | None, queue: str, rest: bool
) -> None:
    """Start Ridgewind on this computer, with your own library.

    \b
    Examples:
      ridgewind serve --open
      ridgewind serve --data ~/films/ridgewind --port 9000
      ridgewind serve --network
      ridgewind serve --network --queue redis://127.0.0.1:6379
    """
    library = data or user_data_path("ridgewind", appauthor=False)
    run_server(
        Start(
            library,
            port,
            open_browser=open_browser,
            network=network,
            broker=queue,
            resting=rest,
            before=disown,
            announce=click.echo,
        )
    )
