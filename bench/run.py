"""Measure the speeds that Ridgewind holds itself to: `make bench`.

Ratios are taken between runs that alternate in one go, because machines are noisy. The first
run films a 1080p clip with the stand-in camera (a few minutes) and keeps it in bench/.cache.
"""

from __future__ import annotations

import os
import statistics
import subprocess
import sys
import tempfile
import time
from collections import defaultdict
from dataclasses import replace
from pathlib import Path

import numpy as np

from ridgewind.core.brief import FEELS, Brief, usual_brief
from ridgewind.core.clip import Clip
from ridgewind.core.judge import Analysis, assess
from ridgewind.core.motion import Motion, Shot
from ridgewind.core.shake.trace import trace
from ridgewind.jobs import render
from ridgewind.jobs.measure import measure_clip
from ridgewind.library.library import Library
from ridgewind.services import assessing, deciding
from ridgewind.store import briefs, clips, database, renders, summaries, takes
from ridgewind.web.app import Config, create_app

CACHE = Path(__file__).parent / ".cache"
DECODE = (
    "import sys, av\n"
    "film = av.open(sys.argv[1]); stream = film.streams.video[0]\n"
    "if sys.argv[2] == 'auto': stream.thread_type = 'AUTO'\n"
    "assert sum(1 for _ in film.decode(stream))\n"
)
ENLARGE = """
import sys, av
from fractions import Fraction
source = av.open(sys.argv[1]); out = av.open(sys.argv[2] + ".part", "w", format="mp4")
stream = out.add_stream("libx265", rate=30); stream.width, stream.height = 3840, 2160
stream.pix_fmt = "yuv420p10le"
stream.options = {"preset": "ultrafast", "crf": "24", "x265-params": "log-level=0"}
for index, frame in zip(range(240), source.decode(video=0)):
    big = frame.reformat(3840, 2160, "yuv420p10le")
    big.pts, big.time_base = index, Fraction(1, 30)
    out.mux(stream.encode(big))
out.mux(stream.encode(None)); out.close()
import os; os.replace(sys.argv[2] + ".part", sys.argv[2])
"""
REPEAT = """
import sys, av, os
out = av.open(sys.argv[2] + ".part", "w", format="mp4"); stream = None
for turn in range(30):
    source = av.open(sys.argv[1]); given = source.streams.video[0]
    stream = stream or out.add_stream_from_template(given)
    length = 600 * turn
    for packet in source.demux(given):
        if packet.dts is None: continue
        shift = int(turn * 20 / packet.time_base)
        packet.pts += shift; packet.dts += shift; packet.stream = stream
        out.mux(packet)
out.close(); os.replace(sys.argv[2] + ".part", sys.argv[2])
"""

COPY = """
import sys, time, av
from ridgewind.media.encode import COPY_OPTIONS, copy_size
begun = time.perf_counter()
film = av.open(sys.argv[1]); given = film.streams.video[0]
given.thread_type = "AUTO"; given.codec_context.thread_count = 0
out = av.open(sys.argv[2], "w", format="mp4")
stream = out.add_stream("libx264", rate=given.average_rate)
stream.width, stream.height = copy_size((given.width, given.height))
stream.pix_fmt, stream.options = "yuv420p", COPY_OPTIONS
for frame in film.decode(given):
    small = frame.reformat(
        stream.width, stream.height, "yuv420p", interpolation="FAST_BILINEAR"
    )
    small.time_base = frame.time_base
    out.mux(stream.encode(small))
out.mux(stream.encode(None)); out.close()
print(time.perf_counter() - begun)
"""
BRING_IN = """
import sys, time
from pathlib import Path
from ridgewind.jobs.measure import measure_clip
from ridgewind.library.library import Library
begun = time.perf_counter()
measure_clip(Library(Path(sys.argv[1])), int(sys.argv[2]))
print(time.perf_counter() - begun)
"""

RUNS = int(os.environ.get("RUNS", "5"))
JUDGEMENTS = 7


def timed(command: list[str]) -> tuple[float, float]:
    """Wall time in s and peak memory in MB of a whole process."""
    begun = time.perf_counter()
    process = subprocess.Popen(command, stdout=subprocess.DEVNULL)
    _, status, usage = os.wait4(process.pid, 0)
    process.returncode = status
    assert status == 0, command
    return time.perf_counter() - begun, usage.ru_maxrss / 1024


def clip_1080p() -> Path:
    return filmed("door-1080p-20s.mp4", "--seconds", "20")


def clip_1080p60() -> Path:
    return filmed("door-1080p60-10s.mp4", "--seconds", "10", "--fps", "60")


def filmed(name: str, *options: str) -> Path:
    """A clip of the stand-in camera; made once."""
    path = CACHE / name
    if not path.exists():
        CACHE.mkdir(exist_ok=True)
        print(f"filming {name}, once")
        # In a process of its own: the memory of a child counts from its parent's.
        subprocess.run(
            [sys.executable, "-m", "ridgewind.cli", "standin", str(path), "--scene", "door",
             "--size", "1920", "1080", "--crf", "20", *options],
            check=True,
        )  # fmt: skip
    return path


def clip_4k_hevc() -> Path:
    """The 1080p clip at twice the size, as HEVC; made once."""
    path = CACHE / "door-4k-hevc.mp4"
    if not path.exists():
        print("making a 4K HEVC clip, once")
        subprocess.run([sys.executable, "-c", ENLARGE, str(clip_1080p()), str(path)], check=True)
    return path


def clip_of_ten_minutes() -> Path:
    """The small demo clips, over and over, each a shot; made once."""
    path = CACHE / "ten-minutes.mp4"
    if not path.exists():
        print("making a clip of ten minutes, once")
        source = str(clip_1080p())
        subprocess.run([sys.executable, "-c", REPEAT, source, str(path)], check=True)
    return path


def measuring(path: Path) -> None:
    clip = str(path)
    print(path.name)
    ways = {
        # As the library comes: threads within a frame, which help where a frame has slices.
        "decode, its own threads": [sys.executable, "-c", DECODE, clip, "own"],
        "decode, frames at once": [sys.executable, "-c", DECODE, clip, "auto"],
        "ridgewind measure": [sys.executable, "-m", "ridgewind.cli", "measure", clip],
    }
    seconds: dict[str, list[float]] = {name: [] for name in ways}
    memory: dict[str, float] = {}
    for _ in range(RUNS):
        for name, command in ways.items():
            wall, peak = timed(command)
            seconds[name].append(wall)
            memory[name] = max(memory.get(name, 0), peak)
    for name, walls in seconds.items():
        print(f"{name:26s} median {statistics.median(walls):6.2f} s  {memory[name]:5.0f} MB")
    ours = seconds["ridgewind measure"]
    for name in list(ways)[:2]:
        ratios = [a / b for a, b in zip(ours, seconds[name], strict=True)]
        low, middle, high = min(ratios), statistics.median(ratios), max(ratios)
        print(f"measure / {name}: {middle:.2f} (from {low:.2f} to {high:.2f})")
    print("bar 1.1; it was set beside frames at once, its words say the library's own threads")


def bringing_in(path: Path) -> None:
    """A clip measured with its browser copy, beside decoding and encoding that copy alone; both by
    a process that runs already, as a worker does."""

    def seconds(*command: str) -> float:
        program = [sys.executable, "-c", *command]
        return float(subprocess.run(program, check=True, capture_output=True, text=True).stdout)

    ours, alone = [], []
    for _ in range(RUNS):
        with tempfile.TemporaryDirectory() as folder:
            copy = str(Path(folder) / "copy.mp4")
            alone.append(seconds(COPY, str(path), copy))
            library = Library(Path(folder))
            library.prepare()
            with database.opened(library.database) as db, path.open("rb") as stream:
                take = library.add(db, stream, file_name=path.name, size_bytes=None).take
            clip = str(take.clip_id)
            ours.append(seconds(BRING_IN, folder, clip))
    ratios = sorted(a / b for a, b in zip(ours, alone, strict=True))
    print(
        f"{path.name}: bringing in / decoding and encoding the copy alone: "
        f"{statistics.median(ratios):.2f} (from {ratios[0]:.2f} to {ratios[-1]:.2f}); bar 1.2"
    )


def shaken_path(*, seconds: int) -> Motion:
    rng = np.random.default_rng(1)
    t = np.arange(60 * seconds) / 60
    shake = [np.sin(2 * np.pi * hz * t) * size for hz, size in ((2, 0.3), (8, 0.05), (0.4, 1))]
    pan, tilt, roll, zoom = (sum(shake) + 0.01 * rng.normal(size=len(t)) for _ in range(4))
    return Motion(t, pan, tilt, roll, zoom, np.ones(len(t)), np.zeros((len(t), 4)), 9 / 16,
                  (Shot(0, len(t), None),))  # fmt: skip


def best_of(action, times: int = 5) -> float:
    walls = []
    for _ in range(times):
        begun = time.perf_counter()
        action()
        walls.append(time.perf_counter() - begun)
    return 1000 * min(walls)


def recomputing() -> None:
    clip = Clip(60.0, 600.0, True, (1920, 1080), 26.0)
    path, brief = shaken_path(seconds=600), usual_brief()
    others = {f"{feel}, the first time": replace(brief, feel=feel) for feel in FEELS}
    others |= {f"{fps}/s delivered": replace(brief, delivery_fps=fps) for fps in (25.0, 30.0, 50.0)}
    walls = defaultdict(list)

    def recompute(analysis: Analysis, brief: Brief) -> float:
        begun = time.perf_counter()
        found = assess(analysis, clip, brief, side_by_side=assessing.side_by_side)
        trace(found.reading, found.band_powers, screen_deg=30, most_points=1600)
        return 1000 * (time.perf_counter() - begun)

    for _ in range(JUDGEMENTS):
        for name, other in others.items():
            analysis = Analysis(path)
            walls["judged first; bar 200 ms"].append(recompute(analysis, brief))
            walls[f"then {name}; bar 50 ms"].append(recompute(analysis, other))
    for name, found in walls.items():
        print(f"10-minute 60/s path, {name}: {statistics.median(found):.0f} ms")


def previewing() -> None:
    """The roughest eight seconds of a polish of 1080p and 4K clips: rendered and measured again."""
    for path in (clip_1080p(), clip_4k_hevc()):
        with tempfile.TemporaryDirectory() as folder:
            library = Library(Path(folder))
            library.prepare()
            with database.opened(library.database) as db:
                with path.open("rb") as stream:
                    take = library.add(db, stream, file_name=path.name, size_bytes=None).take
                measure_clip(library, take.clip_id)
                case = deciding.case_of(db, take.id)
                assert case is not None
                recipe = deciding.recipe(case, deciding.RemedyRequest("polish"))
                recipe = deciding.preview_of(case, recipe)
                with database.atomic(db):
                    number = renders.add(db, take_id=take.id, purpose="preview", recipe=recipe)
                begun = time.perf_counter()
                render.render_one(library, number)
                wall = time.perf_counter() - begun
                assert renders.by_id(db, number).state == "done"
        length = recipe.end_s - recipe.start_s
        print(f"{path.name}: preview of {length:.0f} s in {wall / length:.2f} of it; bar 2")


def judging_again() -> None:
    """A brief that many takes point at is changed; each path is a 10 s clip at 60/s."""
    with tempfile.TemporaryDirectory() as folder:
        library = Library(Path(folder))
        library.prepare()
        motion = shaken_path(seconds=10)
        facts = clips.ClipFactsRow(
            1920,
            1080,
            60.0,
            False,
            10.0,
            None,
            600,
            "h264",
            True,
            None,
            None,
            None,
            None,
            False,
            0.2,
        )
        with database.opened(library.database) as db:
            with database.atomic(db):
                brief_id = briefs.add(db, usual_brief(), name="Shared")
                for k in range(100):
                    clip = clips.add(db, sha256=f"{k:064x}", file=f"{k:064x}.mp4", size_bytes=1)
                    clips.store_measurement(db, clip, facts=facts, motion=motion, method="bench")
                    take = takes.add(
                        db, clip_id=clip, name=f"Take {k}", brief_id=brief_id, setup_id=None
                    )
                    assessing.summarise(db, take)
                summaries.mark_brief_stale(db, brief_id)
            begun = time.perf_counter()
            assert assessing.refresh(db, budget_s=600) == 0
            wall = 10 * (time.perf_counter() - begun)
        print(f"judging a take again after its brief changed: {wall:.1f} ms a take")
        client = create_app(Config(library.root)).test_client()
        headers = {"Host": "127.0.0.1"}
        kit = client.get("/api/kit", headers=headers).get_json()
        fields = ("name", "camera_id", "lens_id", "support_ids", "optics", "bench")
        setup = {field: kit["setups"][-1][field] for field in fields}
        body = {"setup_id": 0, "brief_id": None, "setup": setup}
        wall = best_of(lambda: client.post("/api/bench", json=body, headers=headers))
        print(f"the bench, all six panels with 100 takes: {wall:.0f} ms; two frames are 33 ms")


def listing() -> None:
    with tempfile.TemporaryDirectory() as folder:
        library = Library(Path(folder))
        library.prepare()
        with database.opened(library.database) as db, database.atomic(db):
            brief_id = briefs.usual(db).id
            for k in range(5000):
                clip = clips.add(db, sha256=f"{k:064x}", file=f"{k:064x}.mp4", size_bytes=1)
                take = takes.add(
                    db, clip_id=clip, name=f"Take {k}", brief_id=brief_id, setup_id=None
                )
                summaries.put(
                    db,
                    take,
                    gust=k % 90 / 10,
                    peak_gust=9.0,
                    remedy="keep",
                    ridge=bytes(240),
                    speed_pct_s=1.0,
                    top_band="step",
                    cause="footfalls",
                    trusted_share=1.0,
                    figures={},
                    lasting=None,
                    turning=None,
                    staleness=0,
                )
        client = create_app(Config(library.root)).test_client()
        headers = {"Host": "127.0.0.1"}
        for address in ("/api/takes", "/api/takes?sort=gust&offset=4800&limit=200"):
            wall = best_of(lambda address=address: client.get(address, headers=headers))
            print(f"{address} of 5,000 takes: {wall:.0f} ms; bar 200 ms")


if __name__ == "__main__":
    measuring(clip_1080p())
    measuring(clip_4k_hevc())
    for clip in (clip_1080p(), clip_1080p60(), clip_4k_hevc()):
        bringing_in(clip)
    RUNS = 1
    measuring(clip_of_ten_minutes())
    previewing()
    recomputing()
    judging_again()
    listing()
