"""The kit: cameras, lenses, supports and set-ups. Nothing is deleted, only archived."""

from __future__ import annotations

from http import HTTPStatus

from flask import Response

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.services import benching
from ridgewind.store import database, kit
from ridgewind.store.database import Connection
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.errors import ElsewhereError
from ridgewind.web.kit import models

api = blueprint("kit", prefix="/api/kit")
CHANGED = {200: models.ChangedItem, **FAULTS}


@api.get("", responses={200: models.Kit, **FAULTS})
def whole_kit() -> Response:
    """Everything on the kit: the shooter's own first, archived entries at the end."""
    with current().read() as db:
        return answered(_kit(db))


@api.post("/cameras", responses={201: models.ChangedItem, **FAULTS})
def add_camera(body: models.CameraAsk) -> Response:
    """Add a camera."""
    return _add(body)


@api.post("/lenses", responses={201: models.ChangedItem, **FAULTS})
def add_lens(body: models.LensAsk) -> Response:
    """Add a lens."""
    return _add(body)


@api.post("/supports", responses={201: models.ChangedItem, **FAULTS})
def add_support(body: models.SupportAsk) -> Response:
    """Add a support."""
    return _add(body)


@api.put("/cameras/<int:item_id>", responses=CHANGED)
def change_camera(path: models.ItemPath, body: models.CameraAsk) -> Response:
    """Correct a camera; set-ups and takes that use it follow."""
    return _change(path.item_id, body)


@api.put("/lenses/<int:item_id>", responses=CHANGED)
def change_lens(path: models.ItemPath, body: models.LensAsk) -> Response:
    """Correct a lens; set-ups and takes that use it follow."""
    return _change(path.item_id, body)


@api.put("/supports/<int:item_id>", responses=CHANGED)
def change_support(path: models.ItemPath, body: models.SupportAsk) -> Response:
    """Correct a support."""
    return _change(path.item_id, body)


@api.post("/items/<int:item_id>/archive", responses=CHANGED)
def archive_item(path: models.ItemPath) -> Response:
    """Put an item away; set-ups that use it keep it."""
    return _archive_item(path.item_id, archived=True)


@api.post("/items/<int:item_id>/restore", responses=CHANGED)
def restore_item(path: models.ItemPath) -> Response:
    """Bring an archived item back."""
    return _archive_item(path.item_id, archived=False)


@api.post("/setups", responses={201: models.SetupItem, **FAULTS})
def add_setup(body: models.SetupAsk) -> Response:
    """Keep a set-up; new takes are filmed with it."""
    with current().read() as db:
        ask = _checked(db, body, 0)
        with database.atomic(db):
            setup_id = kit.add_setup(db, ask)
            kit.mark_setup_used(db, setup_id)
        return answered(_setup(db, setup_id), HTTPStatus.CREATED)


@api.put("/setups/<int:setup_id>", responses={200: models.SetupItem, **FAULTS})
def change_setup(path: models.SetupPath, body: models.SetupChange) -> Response:
    """Change a set-up, for all takes that were filmed with it. Refused where it was changed
    elsewhere meanwhile."""
    service = current()
    with service.read() as db:
        ask = _checked(db, body, path.setup_id)  # computed before the write begins
        with database.atomic(db):
            kept = _setup(db, path.setup_id)
            fields = set(models.SetupAsk.model_fields)
            if body.base not in (None, models.SetupAsk(**kept.model_dump(include=fields))):
                raise ElsewhereError("set-up")
            kit.change_setup(db, path.setup_id, ask)
        service.judge_again(db, budget_s=AT_ONCE_S)
        return answered(_setup(db, path.setup_id))


@api.post("/setups/<int:setup_id>/use", responses={200: models.SetupItem, **FAULTS})
def use_setup(path: models.SetupPath) -> Response:
    """Film new takes with this set-up."""
    with current().read() as db:
        with database.atomic(db):
            kit.set_setup_archived(db, path.setup_id, archived=False)
            kit.mark_setup_used(db, path.setup_id)
        return answered(_setup(db, path.setup_id))


@api.post("/setups/<int:setup_id>/archive", responses={200: models.SetupItem, **FAULTS})
def archive_setup(path: models.SetupPath) -> Response:
    """Put a set-up away; takes that were filmed with it keep it."""
    return _archive_setup(path.setup_id, archived=True)


@api.post("/setups/<int:setup_id>/restore", responses={200: models.SetupItem, **FAULTS})
def restore_setup(path: models.SetupPath) -> Response:
    """Bring an archived set-up back."""
    return _archive_setup(path.setup_id, archived=False)


def ask_of(body: models.SetupAsk) -> kit.SetupAsk:
    """A set-up as the store takes it."""
    return kit.SetupAsk(
        name=body.name.strip(),
        camera_id=body.camera_id,
        lens_id=body.lens_id,
        support_ids=tuple(body.support_ids),
        optics=body.optics,
        bench=body.bench,
    )


def _checked(db: Connection, body: models.SetupAsk, setup_id: int) -> kit.SetupAsk:
    """A set-up of which every panel can be computed: nonsense is not kept."""
    ask = ask_of(body)
    found = benching.figures(db, ask, benching.brief_for(db, None), setup_id)
    if found.problems:
        first = found.problems[0]
        raise InvalidArgumentError(f"{first.panel}.{first.field}", None, first.message)
    return ask


AT_ONCE_S = 0.5
"""For how long takes are judged again before a change is answered; the rest follows."""

Ask = models.CameraAsk | models.LensAsk | models.SupportAsk


def _add(body: Ask) -> Response:
    with current().read() as db, database.atomic(db):
        item_id = kit.add_item(db, body.spec, name=body.name.strip())
    return answered(models.ChangedItem(id=item_id, setups=0), HTTPStatus.CREATED)


def _change(item_id: int, body: Ask) -> Response:
    service = current()
    with service.read() as db:
        with database.atomic(db):
            using = kit.change_item(db, item_id, body.spec, name=body.name.strip())
        service.judge_again(db, budget_s=AT_ONCE_S)
    return answered(models.ChangedItem(id=item_id, setups=len(using)))


def _archive_item(item_id: int, *, archived: bool) -> Response:
    with current().read() as db, database.atomic(db):
        kit.set_item_archived(db, item_id, archived=archived)
    return answered(models.ChangedItem(id=item_id, setups=0))


def _archive_setup(setup_id: int, *, archived: bool) -> Response:
    with current().read() as db:
        with database.atomic(db):
            kit.set_setup_archived(db, setup_id, archived=archived)
        return answered(_setup(db, setup_id))


def _kit(db: Connection) -> models.Kit:
    by_kind: dict[str, list[dict[str, object]]] = {"camera": [], "lens": [], "support": []}
    for row in kit.items(db):
        by_kind[row.kind].append(
            {
                "id": row.id,
                "name": row.name,
                "typical": row.typical,
                "archived": row.archived,
                "setups": list(row.setups),
                "spec": row.spec,
            }
        )
    usual_id = kit.usual_setup_id(db)
    return models.Kit.model_validate(
        {
            "cameras": by_kind["camera"],
            "lenses": by_kind["lens"],
            "supports": by_kind["support"],
            "setups": [_setup_item(row, usual_id) for row in kit.setups(db)],
        }
    )


def _setup(db: Connection, setup_id: int) -> models.SetupItem:
    return _setup_item(kit.setup_by_id(db, setup_id), kit.usual_setup_id(db))


def _setup_item(row: kit.SetupRow, usual_id: int | None) -> models.SetupItem:
    ask = row.ask
    return models.SetupItem(
        id=row.id,
        name=ask.name,
        camera_id=ask.camera_id,
        lens_id=ask.lens_id,
        support_ids=list(ask.support_ids),
        optics=ask.optics,
        bench=ask.bench,
        focal_eq_mm=row.focal_eq_mm,
        typical=row.typical,
        archived=row.archived,
        usual=row.id == usual_id,
        takes=row.takes,
    )
