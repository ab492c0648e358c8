"""Reading what cameras really write, refusing what cannot be measured, writing whole files."""

from __future__ import annotations

from fractions import Fraction
from pathlib import Path

import av
import cv2
import numpy as np
import pytest

from ridgewind.core.motion.pyramid import to_working
from ridgewind.films.measuring import measure_film
from ridgewind.media import decode, errors
from ridgewind.media.decode import Film
from ridgewind.media.encode import BrowserCopy, FilmWriter, copy_size, still_of, write_jpeg
from ridgewind.media.errors import MediaError, UnfitError, UnreadableError, translated
from ridgewind.media.formats import in_format
from ridgewind.media.probe import capture_rate, focal_lengths
from ridgewind.media.sound import Sound
from tests.conftest import shaken, texture, view, write_film


def pictures(path: Path):
    with Film(path) as film:
        return list(film.pictures(to_working))


CODECS = [
    ("h264.mp4", "libx264", "yuv420p"),
    ("h264.mkv", "libx264", "yuv444p"),
    ("hevc10.mp4", "libx265", "yuv420p10le"),
    ("h264-10.mov", "libx264", "yuv420p10le"),
    ("vp9.webm", "libvpx-vp9", "yuv420p"),
    ("mjpeg.avi", "mjpeg", "yuvj420p"),
    ("prores.mov", "prores_ks", "yuv422p10le"),
    ("h264.mts", "libx264", "yuv420p"),
    ("av1.webm", "libsvtav1", "yuv420p"),
    ("mpeg4.avi", "mpeg4", "yuv420p"),
    ("mpeg2.mpg", "mpeg2video", "yuv420p"),
    ("ffv1.mkv", "ffv1", "yuv420p10le"),
]


@pytest.mark.parametrize(("name", "codec", "pix_fmt"), CODECS, ids=str)
def test_containers_and_codecs_are_measured_alike(name, codec, pix_fmt, tmp_path):
    options = {"libx264": {"crf": "16"}, "libx265": {"crf": "14", "x265-params": "log-level=0"},
               "libvpx-vp9": {"crf": "16", "b": "0", "cpu-used": "8", "deadline": "realtime"},
               "libsvtav1": {"crf": "4", "preset": "7"}, "mpeg4": {"b": "6000000"},
               "mpeg2video": {"b": "6000000"},
               }.get(codec, {})  # fmt: skip
    target = tmp_path / name
    if name.endswith(".mts"):
        with av.open(str(target), "w", format="mpegts") as film:
            stream = film.add_stream(codec, rate=30)
            stream.width, stream.height, stream.pix_fmt = 320, 180, pix_fmt
            for frame in shaken(40):
                film.mux(
                    stream.encode(
                        in_format(av.VideoFrame.from_ndarray(frame, format="gray"), pix_fmt)
                    )
                )
            film.mux(stream.encode(None))
    else:
        write_film(target, shaken(40), codec=codec, pix_fmt=pix_fmt, options=options)
    measured = measure_film(target)
    assert (measured.width, measured.height, measured.frames) == (320, 180, 40)
    assert measured.fps == pytest.approx(30, abs=0.05)
    pan = -4 * np.sin(2 * np.pi * 2 * np.arange(40) / 30) / 320 * 100
    assert measured.motion.pan_pct == pytest.approx(pan, abs=0.07)


@pytest.mark.parametrize(
    ("rotation", "expected"),
    [(90, (180, 320)), (-90, (180, 320)), (180, (320, 180))],
)
def test_rotated_clips_are_measured_upright(rotation, expected, tmp_path):
    """Content shaken across the coded picture shakes down the displayed one."""
    path = write_film(tmp_path / "turned.mp4", shaken(30), rotation=rotation)
    measured = measure_film(path)
    assert (measured.width, measured.height) == expected
    upright = pictures(path)[0].luma
    coded = next(iter(shaken(1)))
    # The display matrix turns counter-clockwise by its angle.
    turned = np.rot90(coded, k=rotation // 90)
    assert np.corrcoef(upright.ravel(), turned.ravel())[0, 1] > 0.97
    moving, still = measured.motion.tilt_pct, measured.motion.pan_pct
    if rotation == 180:
        moving, still = still, moving
    assert np.ptp(moving) > 1.5
    assert np.ptp(still) < 0.1


def test_pixels_that_are_not_square_are_made_so(tmp_path):
    path = write_film(tmp_path / "wide.mp4", shaken(30, size=(240, 180)), aspect=Fraction(4, 3))
    measured = measure_film(path)
    assert measured.width / measured.height == pytest.approx(16 / 9, abs=0.02)


def test_variable_rates_keep_their_own_timestamps(tmp_path):
    rng = np.random.default_rng(2)
    times = np.cumsum(np.r_[0, rng.choice([1 / 60, 1 / 30, 1 / 20], 59)])
    image = texture(640, 360)
    shown = [view(image, (320, 180), x=4 * np.sin(6 * t)) for t in times]
    measured = measure_film(write_film(tmp_path / "vfr.mp4", shown, rate=60, times=times))
    assert measured.variable_rate
    assert measured.motion.t_s == pytest.approx(times, abs=2e-4)
    assert not measure_film(write_film(tmp_path / "cfr.mp4", shaken())).variable_rate


def test_sound_is_noticed(tmp_path):
    assert measure_film(write_film(tmp_path / "with.mp4", shaken(), sound=True)).has_sound
    assert not measure_film(write_film(tmp_path / "without.mp4", shaken())).has_sound


def test_a_film_cut_off_in_the_middle_is_measured_as_far_as_it_goes(tmp_path):
    whole = write_film(tmp_path / "whole.mkv", shaken(120), options={"g": "10"})
    data = whole.read_bytes()
    (tmp_path / "part.mkv").write_bytes(data[: len(data) // 2])
    measured = measure_film(tmp_path / "part.mkv")
    assert 20 < measured.frames < 110
    assert measured.claimed_s is None or measured.claimed_s > measured.duration_s


def silent_sound(path: Path) -> None:
    with av.open(str(path), "w") as film:
        stream = film.add_stream("aac", rate=48_000, layout="mono")
        frame = av.AudioFrame.from_ndarray(np.zeros((1, 1024), np.float32), "fltp", "mono")
        frame.rate = 48_000
        film.mux(stream.encode(frame))
        film.mux(stream.encode(None))


def bad_files(folder: Path) -> dict[str, Path]:
    film = write_film(folder / "good.mp4", shaken(30))
    made = {name: folder / name for name in (
        "empty.mp4", "text.mp4", "text.txt", "noise.mov", "cut.mp4", "sound.m4a", "single.mp4",
        "tiny.mp4", "blank.mp4", "dark.mp4", "list.m3u8", "still.png",
    )}  # fmt: skip
    made["empty.mp4"].touch()
    made["text.mp4"].write_text("this is not a film\n" * 50)
    made["text.txt"].write_text("this is not a film\n" * 50)
    made["noise.mov"].write_bytes(np.random.default_rng(0).bytes(50_000))
    made["cut.mp4"].write_bytes(film.read_bytes()[: film.stat().st_size // 2])
    silent_sound(made["sound.m4a"])
    write_film(made["single.mp4"], shaken(1))
    write_film(made["tiny.mp4"], shaken(30, size=(48, 48)))
    write_film(made["blank.mp4"], [np.full((180, 320), 140, np.uint8)] * 30)
    write_film(made["dark.mp4"], [np.full((180, 320), 17, np.uint8)] * 30)
    made["list.m3u8"].write_text(f"#EXTM3U\n#EXTINF:1,\n{film}\n#EXT-X-ENDLIST\n")
    cv2.imwrite(str(made["still.png"]), texture(320, 180))
    made["missing.mp4"] = folder / "missing.mp4"
    made["folder"] = folder
    return made


EXPECTED = {
    "empty.mp4": (UnreadableError, "the file is empty"),
    "text.mp4": (UnreadableError, "this is not a film"),
    "text.txt": (UnreadableError, "this is not a film"),
    "noise.mov": (UnreadableError, "this is not a film"),
    "cut.mp4": (UnreadableError, "cut short"),
    "sound.m4a": (UnfitError, "no picture, only sound"),
    "single.mp4": (UnfitError, "a single frame"),
    "tiny.mp4": (UnfitError, "smaller than 64 px"),
    "blank.mp4": (UnfitError, "blank or has too little detail"),
    "dark.mp4": (UnfitError, "too dark"),
    "list.m3u8": (UnreadableError, "this is not a film"),
    "still.png": (UnfitError, "a single frame"),
    "missing.mp4": (UnreadableError, "there is no such file"),
    "folder": (UnreadableError, "this is a folder"),
}


@pytest.fixture(scope="module")
def bad(tmp_path_factory):
    return bad_files(tmp_path_factory.mktemp("bad"))


@pytest.mark.parametrize("name", EXPECTED)
def test_what_cannot_be_measured_says_so(name, bad):
    kind, words = EXPECTED[name]
    with pytest.raises(kind, match=words) as caught:
        measure_film(bad[name])
    assert caught.value.next_step
    assert caught.value.code


def test_every_error_of_the_video_library_is_translated():
    for error in vars(av.error).values():
        if isinstance(error, type) and issubclass(error, av.error.FFmpegError):
            with pytest.raises(MediaError), translated():
                raise error(1, "made up")


def test_a_full_disk_is_named():
    with pytest.raises(MediaError, match="the disk is full"), translated():
        raise OSError(28, "No space left on device")
    assert errors.DISK_FULL[0] == "disk_full"


def test_a_browser_copy_can_be_scrubbed(tmp_path):
    source = write_film(tmp_path / "big.mp4", shaken(60, size=(1600, 900)))
    target = tmp_path / "copy.mp4"
    with (
        Film(source) as film,
        BrowserCopy(target, size=(1600, 900), rate_hz=30, sound=None) as copy,
    ):
        for picture in film.pictures(to_working):
            copy.feed(picture)
    with av.open(str(tmp_path / "copy.mp4")) as made:
        stream = made.streams.video[0]
        frames = list(made.decode(stream))
        assert stream.codec_context.name == "h264"
        assert (stream.width, stream.height) == (1280, 720)
    assert len(frames) == 60
    keys = [frame.time for frame in frames if frame.key_frame]
    assert max(np.diff(keys)) <= 0.51
    assert frames[0].time == 0


def test_a_browser_copy_is_heard_from_the_first_picture_on(tmp_path):
    """The picture begins half a second into the sound, which is loud for its first second."""
    rate, source, target = 48_000, tmp_path / "late.mov", tmp_path / "copy.mp4"
    with av.open(str(source), "w") as out:
        video = out.add_stream("libx264", rate=30)
        video.width, video.height, video.pix_fmt = 320, 180, "yuv420p"
        audio = out.add_stream("pcm_s16le", rate=rate, layout="mono")
        for index, frame in enumerate(shaken(45)):
            picture = in_format(av.VideoFrame.from_ndarray(frame, format="gray"), "yuv420p")
            picture.pts, picture.time_base = index + 15, Fraction(1, 30)
            out.mux(video.encode(picture))
        out.mux(video.encode(None))
        noise = np.random.default_rng(1).integers(-9000, 9000, 2 * rate, dtype=np.int16)
        noise[rate:] = 0
        heard = av.AudioFrame.from_ndarray(noise[None], format="s16", layout="mono")
        heard.rate, heard.pts = rate, 0
        out.mux(audio.encode(heard))
        out.mux(audio.encode(None))
    with (
        Film(source) as film,
        Sound(source, start_s=0.5) as sound,
        BrowserCopy(target, size=(320, 180), rate_hz=30, sound=sound) as copy,
    ):
        for picture in film.pictures(to_working):
            copy.feed(picture)
    with av.open(str(target)) as made:
        frames = list(made.decode(audio=0))
        values = np.concatenate([frame.to_ndarray()[0] for frame in frames])
    loud = np.flatnonzero(np.abs(values) > 0.05)
    first_s = float(frames[0].time)
    assert first_s + loud[0] / rate == pytest.approx(0.0, abs=0.03)
    assert first_s + loud[-1] / rate == pytest.approx(0.5, abs=0.03)


def test_copies_never_grow_and_have_even_sides():
    assert copy_size((3840, 2160)) == (1280, 720)
    assert copy_size((321, 181)) == (320, 180)
    assert copy_size((1080, 1920)) == (720, 1280)


def test_a_failed_copy_leaves_nothing_behind(tmp_path):
    def fail_midway():
        with FilmWriter(tmp_path / "x.mp4", size=(64, 64), rate_hz=25, options={}) as writer:
            writer.write(av.VideoFrame(64, 64, "yuv420p"), 0.0)
            raise RuntimeError("on purpose")

    with pytest.raises(RuntimeError, match="on purpose"):
        fail_midway()
    assert list(tmp_path.iterdir()) == []


def test_stills_are_small_and_whole(tmp_path, short_film):
    picture = pictures(short_film)[0]
    write_jpeg(tmp_path / "still.jpg", still_of(picture, long_side_px=160))
    assert cv2.imread(str(tmp_path / "still.jpg")).shape == (90, 160, 3)


@pytest.mark.parametrize(
    ("key", "value", "found"),
    [
        ("com.android.capture.fps", "240.000000", 240.0),
        ("CaptureFrameRate", "240000/1001", 240000 / 1001),
        ("com.android.capture.fps", "fast", None),
        ("com.android.capture.fps", "0", None),
        ("captured by", "240", None),
        ("encoder", "240", None),
    ],
)
def test_the_rate_of_filming_is_read_from_what_phones_write(key, value, found):
    assert capture_rate({key: value}) == (found if found is None else pytest.approx(found))


@pytest.mark.parametrize(
    ("key", "value", "found"),
    [
        ("camera.lens.focal_length", "24.0 mm", (24.0, None)),
        ("FocalLength", "240/10", (24.0, None)),
        ("focal_length.35mm_equivalent", "28", (None, 28.0)),
        ("FocalLengthIn35mmFilm", "52 mm", (None, 52.0)),
        ("FocalLength", "about 24", (None, None)),
        ("FocalLength", "24/0", (None, None)),
        ("FocalLength", "0.2", (None, None)),
        ("comment", "24", (None, None)),
    ],
)
def test_focal_length_is_read_from_what_cameras_write(key, value, found):
    assert focal_lengths({key: value}) == found


@pytest.mark.parametrize("rate", [Fraction(24000, 1001), 25, 50, 120, 240])
def test_rates_from_cinema_to_slow_motion_are_read_as_they_are(rate, tmp_path):
    count = max(36, round(rate / 2))
    frames = shaken(count, rate_hz=float(rate))
    measured = measure_film(write_film(tmp_path / "a.mp4", frames, rate=rate))
    assert measured.fps == pytest.approx(float(rate), rel=1e-4)
    pan = -4 * np.sin(2 * np.pi * 2 * np.arange(count) / float(rate)) / 320 * 100
    assert measured.motion.pan_pct == pytest.approx(pan, abs=0.08)


def test_a_picture_of_8k_is_measured_like_a_small_one(tmp_path):
    small = list(shaken(12, size=(480, 270), amplitude_px=2.0))
    large = [cv2.resize(frame, (7680, 4320), interpolation=cv2.INTER_CUBIC) for frame in small]
    options = {"crf": "20", "preset": "ultrafast"}
    measured = measure_film(write_film(tmp_path / "large.mp4", large, options=options))
    assert (measured.width, measured.height) == (7680, 4320)
    pan = -2 * np.sin(2 * np.pi * 2 * np.arange(12) / 30) / 480 * 100
    assert measured.motion.pan_pct == pytest.approx(pan, abs=0.03)


def test_missing_timestamps_are_put_one_frame_apart(tmp_path):
    """A bare stream holds no times at all."""
    path = tmp_path / "bare.h264"
    with av.open(str(path), "w", format="h264") as film:
        stream = film.add_stream("libx264", rate=30)
        stream.width, stream.height, stream.pix_fmt = 320, 180, "yuv420p"
        for frame in shaken(40):
            picture = in_format(av.VideoFrame.from_ndarray(frame, format="gray"), "yuv420p")
            film.mux(stream.encode(picture))
        film.mux(stream.encode(None))
    motion = measure_film(path).motion
    assert len(motion.t_s) == 40
    assert (np.diff(motion.t_s) > 0).all()


def test_frames_that_all_claim_one_moment_are_put_apart(tmp_path):
    """As broken recorders write them: the rate that follows from it cannot be."""
    path = write_film(tmp_path / "one.mkv", shaken(40), times=[k / 90_000 for k in range(40)])
    measured = measure_film(path)
    assert measured.frames == 40
    assert (np.diff(measured.motion.t_s) > 0).all()


@pytest.mark.parametrize("container", ["mp4", "flv"])
def test_a_film_that_is_begun_before_its_first_picture_begins_with_it(container, tmp_path):
    times = [5.0 + k / 30 for k in range(20)]
    path = write_film(tmp_path / f"late.{container}", shaken(20, size=(160, 90)), times=times)
    with Film(path) as film:
        whole = [picture.t_s for picture in film.pictures(lambda plane: plane)]
    with Film(path) as film:
        film.begin_at(whole[0] - 0.3)
        assert [picture.t_s for picture in film.pictures(lambda plane: plane)] == whole


@pytest.mark.parametrize("fmt", ["yuv420p", "yuv420p10le", "yuv422p12le", "p010le", "gray16le"])
def test_middle_grey_is_middle_grey_at_every_depth(fmt):
    frame = av.VideoFrame(64, 64, fmt)
    luma = decode.luma_of(frame)
    low = 0 if fmt != "p010le" else 6
    luma[:] = (128 << (decode.luma_bits(frame) - 8)) >> low << low
    shown = decode.as_shown(to_working(luma), 1.0, 0, bits=decode.luma_bits(frame))
    assert shown.dtype == np.uint8
    assert np.abs(shown.astype(int) - 128).max() <= 1
