"""The live meter's speed: `.venv/bin/python bench/live.py [FILM]`.

A film's pictures go through the server's own address as the browser sends them, a few a request.
From a picture's coming to its figure is what remains of the bar of 300 ms after the camera and the
browser have had theirs.
"""

from __future__ import annotations

import statistics
import sys
import tempfile
import time
from pathlib import Path

import cv2

from ridgewind.films.measuring import measure_film
from ridgewind.library.library import Library
from ridgewind.media.decode import Film
from ridgewind.web.app import Config, create_app

CLIPS = Path(__file__).parent.parent / "ridgewind/demo/clips"
LONG_PX, TOGETHER = 480, 3
BAR_MS = 300.0
HEADERS = {"Host": "127.0.0.1:8421"}


def main() -> None:
    path = Path(sys.argv[1]) if len(sys.argv) > 1 else max(CLIPS.glob("*.mp4"), key=_size)
    with tempfile.TemporaryDirectory() as folder:
        library = Library(Path(folder))
        library.prepare()
        client = create_app(Config(Path(folder))).test_client()
        with Film(path) as film:
            pictures = [(one.t_s, _small(one.luma)) for one in film.pictures(lambda luma: luma)]
        height, width = pictures[0][1].shape
        begun = {"width": width, "height": height, "target": 4.0, "screen": "laptop"}
        key = client.post("/api/live", json=begun, headers=HEADERS).get_json()["key"]
        took_ms = []
        for at in range(0, len(pictures), TOGETHER):
            some = pictures[at : at + TOGETHER]
            times = ",".join(f"{t_s:.4f}" for t_s, _ in some)
            body = b"".join(luma.tobytes() for _, luma in some)
            since = time.perf_counter()
            answer = client.put(
                f"/api/live/{key}/pictures?times={times}", data=body, headers=HEADERS
            )
            took_ms.append(1000 * (time.perf_counter() - since))
            assert answer.status_code == 200, answer.text
    length_s = pictures[-1][0] - pictures[0][0]
    middle, most = statistics.median(took_ms), sorted(took_ms)[int(0.95 * len(took_ms))]
    print(f"{path.name}: {len(pictures)} pictures of {width}x{height}, {TOGETHER} a request")
    print(f"a request: {middle:.0f} ms, one in twenty over {most:.0f} ms")
    print(f"of the bar of {BAR_MS:.0f} ms: {middle / BAR_MS:.2f}, {most / BAR_MS:.2f}")
    print(f"share of one core while it runs: {sum(took_ms) / 1000 / length_s:.2f}")
    since = time.perf_counter()
    measure_film(path)
    print(f"measured whole in {(time.perf_counter() - since) / length_s:.2f} of its own length")


def _size(path: Path) -> int:
    return path.stat().st_size


def _small(luma):
    scale = LONG_PX / max(luma.shape)
    return cv2.resize(luma, None, fx=scale, fy=scale, interpolation=cv2.INTER_AREA)


if __name__ == "__main__":
    main()
