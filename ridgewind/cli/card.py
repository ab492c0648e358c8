"""The subcommand `ridgewind card`: a simulated card of a session that was run."""

from __future__ import annotations

from pathlib import Path

import click

from ridgewind.cli.common import FOLDER, SETTINGS, Refusal
from ridgewind.core.practice.slate import slate_text
from ridgewind.library import moving
from ridgewind.library.library import Library
from ridgewind.moments import moment_of
from ridgewind.standin.card import CardTake, film_card
from ridgewind.store import database, drills, sessions
from ridgewind.store.errors import NotFoundError


@click.command(context_settings=SETTINGS)
@click.argument("folder", type=FOLDER)
@click.option("--data", type=FOLDER, required=True, help="Folder of the library.")
@click.option("--session", "session_id", type=click.IntRange(1), help="Else the newest one.")
def card(folder: Path, data: Path, session_id: int | None) -> None:
    """Film the takes of a session that was run, as a card in FOLDER; for trying without a camera.

    \b
    Its clock is 47 minutes ahead, one slate cannot be read, one take is missing, one film
    belongs nowhere, and one file is damaged.
    \b
    Examples:
      ridgewind card /tmp/card --data ~/films/ridgewind
      ridgewind card /tmp/card --data ~/films/ridgewind --session 3
    """
    library = Library(moving.where(data))
    if not library.database.exists():
        raise Refusal(f"{data}: holds no library; give the folder that --data was served from")
    with database.opened(library.database) as db:
        try:
            newest = sessions.recent(db, limit=1)
            session = sessions.by_id(db, session_id) if session_id else newest[0]
        except (NotFoundError, IndexError):
            raise Refusal(f"{data}: there is no such session; plan and run one first") from None
        known = drills.library(db, archived=True)
    takes = []
    for take in session.takes:
        if take.filmed_at is None:
            continue
        drill = known[take.drill_key]
        takes.append(
            CardTake(
                position=take.position,
                slate=slate_text(session.id, take.position),
                ended=moment_of(take.filmed_at),
                take_s=session.plan.blocks[take.block].take_s,
                control=take.variation_key == drill.control.key,
                tempo=drill.tempo,
                space=drill.space,
            )
        )
    if not takes:
        raise Refusal(f"{data}: no take of this session was run; run it in Practice first")
    with click.progressbar(length=len(takes), label="Filming the card") as bar:
        film_card(takes, folder, on_film=lambda *_: bar.update(1))
    click.echo(f"{len(takes)} takes were run; the card is in {folder}. It is simulated.")
