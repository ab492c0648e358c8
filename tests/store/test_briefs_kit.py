"""Briefs that takes point at, and a kit from which nothing is lost."""

from __future__ import annotations

from dataclasses import replace

import pytest

from ridgewind.core.brief import Likeness, usual_brief
from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.kit import typical
from ridgewind.core.kit.bench import usual_bench
from ridgewind.store import briefs, database, kit, seeds, summaries, takes
from ridgewind.store.errors import NotFoundError, TypicalError
from tests.store.test_store import add_take, summary


def own_setup(db, **optics) -> kit.SetupAsk:
    ids = kit.typical_ids(db)
    chosen = replace(typical.MIRRORLESS_OPTICS, **optics)
    return kit.SetupAsk(
        "Mine", ids["full_mirrorless"], ids["normal"], (ids["neck_strap"],), chosen, usual_bench()
    )


def point_at_named(db, number: int, brief_id: int) -> int:
    take_id = add_take(db, number)
    takes.point(db, take_id, brief_id=brief_id)
    return take_id


def test_a_new_library_holds_typical_kit_and_a_brief_for_each_feel(db):
    assert {row.brief.feel for row in briefs.named(db)} == {"locked", "smooth", "alive", "raw"}
    assert briefs.usual(db).brief == usual_brief()
    usual = kit.setup_by_id(db, kit.usual_setup_id(db))
    assert usual.focal_eq_mm == pytest.approx(26.0)
    assert {row.kind for row in kit.items(db)} == {"camera", "lens", "support"}


def test_a_brief_keeps_its_example(db):
    like = Likeness("The old film", {"sway": 0.7, "jitter": 0.3}, "pan", 3.2)
    brief_id = briefs.add(db, replace(usual_brief(), likeness=like), name="Like it")
    assert briefs.by_id(db, brief_id).brief.likeness == like
    take_id = add_take(db, 1)
    takes.point(db, take_id, brief_id=brief_id)
    assert takes.by_id(db, take_id).brief.likeness == like
    briefs.change(db, brief_id, usual_brief(), name="Like nothing")
    assert briefs.by_id(db, brief_id).brief.likeness is None


def test_seeding_again_changes_nothing_but_brings_shipped_entries_up_to_date(db):
    item_id = kit.typical_ids(db)["normal"]
    db.execute("update kit_item set name = 'Outdated' where id = ?", (item_id,))
    kit.set_item_archived(db, item_id, archived=True)
    before = len(kit.items(db)), len(kit.setups(db)), len(briefs.named(db))
    seeds.seed(db)
    assert before == (len(kit.items(db)), len(kit.setups(db)), len(briefs.named(db)))
    assert kit.item(db, item_id).name == "Fixed 35"
    assert kit.item(db, item_id).archived


def test_everything_shipped_survives_storage_exactly(db):
    for shelf in (typical.CAMERAS, typical.LENSES, typical.SUPPORTS):
        for key, (name, spec) in shelf.items():
            row = kit.item(db, kit.typical_ids(db)[key])
            assert (row.name, row.spec) == (name, spec)


def test_a_take_may_depart_from_its_brief_and_come_back(db):
    shared = briefs.add(db, usual_brief(), name="Shared")
    take_id = point_at_named(db, 1, shared)
    other_id = point_at_named(db, 2, shared)
    takes.set_own_brief(db, take_id, replace(usual_brief(), feel="raw"))
    own = takes.by_id(db, take_id)
    assert (own.brief_name, own.brief.feel) == (None, "raw")
    assert briefs.by_id(db, own.brief_id).parent_id == shared
    assert takes.by_id(db, other_id).brief.feel == "smooth"
    takes.set_own_brief(db, take_id, replace(usual_brief(), feel="alive"))
    assert takes.by_id(db, take_id).brief_id == own.brief_id
    takes.point(db, take_id, brief_id=shared)
    assert takes.by_id(db, take_id).brief_name == "Shared"
    with pytest.raises(NotFoundError, match="no brief"):
        briefs.by_id(db, own.brief_id)


def test_changing_a_brief_marks_the_takes_that_depend_on_it_and_no_other(db):
    shared = briefs.add(db, usual_brief(), name="Shared")
    ids = [point_at_named(db, number, shared) for number in (1, 2)]
    ids.append(add_take(db, 3))
    for take_id in ids:
        summary(db, take_id, 3.0)
    briefs.change(db, shared, replace(usual_brief(), feel="locked"), name="Shared")
    assert summaries.mark_brief_stale(db, shared) == 2
    assert summaries.stale_ids(db, limit=10) == ids[1::-1]
    assert summaries.stale_count(db) == 2
    assert [takes.by_id(db, take_id).stale for take_id in ids] == [True, True, False]


def test_what_is_out_of_date_is_found_without_a_look_at_every_take(db):
    asked = []
    db.set_trace_callback(asked.append)
    summaries.stale_count(db)
    summaries.stale_ids(db, limit=3)
    db.set_trace_callback(None)
    assert len(asked) == 2
    for words in asked:
        first = db.execute(f"explain query plan {words}").fetchone()["detail"]
        assert "summary_out_of_date" in first, words


def test_typical_entries_are_not_overwritten(db):
    ids = kit.typical_ids(db)
    with pytest.raises(TypicalError, match="typical"):
        kit.change_item(db, ids["normal"], typical.LENSES["short_tele"][1], name="x")
    with pytest.raises(TypicalError):
        briefs.change(db, briefs.by_key(db, "raw").id, usual_brief(), name="x")
    with pytest.raises(TypicalError):
        kit.change_setup(db, kit.setup_by_key(db, "phone_hands").id, own_setup(db))


def test_archived_entries_stay_with_what_refers_to_them(db):
    setup_id = kit.add_setup(db, own_setup(db))
    take_id = add_take(db, 1)
    takes.point(db, take_id, setup_id=setup_id)
    kit.set_setup_archived(db, setup_id, archived=True)
    kit.set_item_archived(db, kit.typical_ids(db)["normal"], archived=True)
    assert takes.by_id(db, take_id).focal_eq_mm == pytest.approx(35.0)
    assert kit.setup_by_id(db, setup_id).archived
    assert kit.setups(db)[-1].id == setup_id
    assert kit.usual_setup_id(db) != setup_id


def test_the_last_set_up_and_brief_used_are_the_next_ones(db):
    setup_id = kit.add_setup(db, own_setup(db))
    kit.mark_setup_used(db, setup_id)
    raw = briefs.by_key(db, "raw").id
    briefs.mark_used(db, raw)
    assert kit.usual_setup_id(db) == setup_id
    assert briefs.usual(db).id == raw


def test_correcting_a_lens_or_camera_reaches_every_take_filmed_with_it(db):
    lens_id = kit.add_item(db, typical.LENSES["normal"][1], name="Mine")
    setup_id = kit.add_setup(db, replace(own_setup(db), lens_id=lens_id))
    take_id = add_take(db, 1)
    takes.point(db, take_id, setup_id=setup_id)
    fixed = replace(typical.LENSES["normal"][1], focal_min_mm=30.0)
    assert kit.change_item(db, lens_id, fixed, name="Mine") == [setup_id]
    camera = replace(typical.CAMERAS["full_mirrorless"][1], sensor_long_mm=24.0,
                     sensor_short_mm=16.0)  # fmt: skip
    camera_id = kit.add_item(db, camera, name="Smaller")
    kit.change_setup(db, setup_id, replace(own_setup(db), lens_id=lens_id, camera_id=camera_id))
    assert takes.by_id(db, take_id).focal_eq_mm == pytest.approx(52.5)
    takes.set_own_focal(db, take_id, 40.0)
    assert takes.by_id(db, take_id).focal_eq_mm == 40.0


def test_a_set_up_keeps_its_mode_when_the_camera_s_list_changes(db):
    camera = typical.CAMERAS["full_mirrorless"][1]
    camera_id = kit.add_item(db, camera, name="Mine")
    ask = replace(own_setup(db, mode=2, rate_hz=60.0), camera_id=camera_id)
    setup_id = kit.add_setup(db, ask)
    name = camera.modes[2].name

    def mode_name(spec):
        return spec.modes[kit.setup_by_id(db, setup_id).ask.optics.mode].name

    fewer = replace(camera, modes=camera.modes[1:])
    kit.change_item(db, camera_id, fewer, name="Mine")
    assert mode_name(fewer) == name
    renamed = replace(fewer, modes=(fewer.modes[0], replace(fewer.modes[1], name="Other"),
                                    *fewer.modes[2:]))  # fmt: skip
    kit.change_item(db, camera_id, renamed, name="Mine")
    assert mode_name(renamed) == "Other"
    with pytest.raises(InvalidArgumentError, match="“Mine” records in the mode “Other”"):
        kit.change_item(db, camera_id, replace(camera, modes=camera.modes[:1]), name="Mine")


def test_a_correction_that_would_break_a_set_up_is_refused_whole(db):
    lens_id = kit.add_item(db, typical.LENSES["normal"][1], name="Mine")
    kit.add_setup(db, replace(own_setup(db), lens_id=lens_id))

    def correct():
        with database.atomic(db):
            kit.change_item(db, lens_id, typical.LENSES["short_tele"][1], name="Mine")

    with pytest.raises(InvalidArgumentError, match="the lens is 85 mm"):
        correct()
    assert kit.item(db, lens_id).spec.focal_min_mm == 35.0


def test_a_set_up_that_cannot_be_is_not_kept(db):
    before = len(kit.setups(db))
    with pytest.raises(InvalidArgumentError, match="records at"):
        kit.add_setup(db, own_setup(db, rate_hz=240.0))
    with pytest.raises(NotFoundError, match="there is no camera"):
        kit.add_setup(db, replace(own_setup(db), camera_id=kit.typical_ids(db)["normal"]))
    assert len(kit.setups(db)) == before
