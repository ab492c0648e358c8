"""Typical kit: round figures for kinds of thing, not for any maker's model."""

from __future__ import annotations

from ridgewind.core.kit.items import (
    Box,
    Camera,
    Lens,
    Mode,
    Optics,
    Place,
    Route,
    Stabiliser,
    Support,
    SupportKind,
)

ALWAYS_HZ = 2000.0
STILL_SHUTTERS = (
    24.0, 25.0, 30.0, 40.0, 50.0, 60.0, 80.0, 100.0, 120.0, 125.0, 160.0, 200.0, 250.0,
    320.0, 400.0, 500.0, 640.0, 800.0, 1000.0, 1250.0, 1600.0, 2000.0, 2500.0, 3200.0, 4000.0,
)  # fmt: skip
CINE_RATES = (24.0, 25.0, 30.0)


def _modes(mbit_s: float, *, fast_crop: float, slow: tuple[float, ...]) -> tuple[Mode, ...]:
    return (
        Mode("4K", 3840, 2160, CINE_RATES, 0.0, mbit_s),
        Mode("4K fast", 3840, 2160, (50.0, 60.0), fast_crop, 1.6 * mbit_s),
        Mode("Full HD", 1920, 1080, (*CINE_RATES, 50.0, 60.0), 0.0, 0.5 * mbit_s),
        Mode("Full HD slow motion", 1920, 1080, slow, fast_crop, mbit_s),
    )


CAMERAS: dict[str, tuple[str, Camera]] = {
    "phone": (
        "Small-sensor phone",
        Camera(
            mount="phone",
            sensor_long_mm=9.0,
            sensor_short_mm=6.75,
            modes=_modes(50.0, fast_crop=0.0, slow=(120.0, 240.0)),
            stabilisers=(Stabiliser("digital", 0.1, 60.0),),
            shutters=STILL_SHUTTERS,
            sound_up_to_hz=60.0,
            autofocus_up_to_hz=120.0,
            read_out_ms=12.0,
            mass_g=190.0,
            size=Box(150.0, 72.0, 8.0),
        ),
    ),
    "pocket": (
        "Pocket camera, one-inch sensor",
        Camera(
            mount="pocket",
            sensor_long_mm=13.2,
            sensor_short_mm=8.8,
            modes=_modes(60.0, fast_crop=0.2, slow=(100.0, 120.0)),
            stabilisers=(Stabiliser("digital", 0.15, 60.0),),
            shutters=STILL_SHUTTERS,
            sound_up_to_hz=60.0,
            autofocus_up_to_hz=60.0,
            read_out_ms=10.0,
            mass_g=300.0,
            size=Box(102.0, 58.0, 40.0),
        ),
    ),
    "small_mirrorless": (
        "Mirrorless, 24 mm wide sensor",
        Camera(
            mount="mirrorless",
            sensor_long_mm=24.0,
            sensor_short_mm=16.0,
            modes=_modes(100.0, fast_crop=0.1, slow=(100.0, 120.0)),
            stabilisers=(Stabiliser("body", 0.0, 60.0), Stabiliser("digital", 0.1, 30.0)),
            shutters=STILL_SHUTTERS,
            sound_up_to_hz=60.0,
            autofocus_up_to_hz=60.0,
            read_out_ms=20.0,
            mass_g=500.0,
            size=Box(122.0, 70.0, 60.0),
        ),
    ),
    "full_mirrorless": (
        "Full-frame mirrorless",
        Camera(
            mount="mirrorless",
            sensor_long_mm=36.0,
            sensor_short_mm=24.0,
            modes=_modes(140.0, fast_crop=0.33, slow=(100.0, 120.0)),
            stabilisers=(Stabiliser("body", 0.0, 60.0), Stabiliser("digital", 0.1, 60.0)),
            shutters=STILL_SHUTTERS,
            sound_up_to_hz=60.0,
            autofocus_up_to_hz=120.0,
            read_out_ms=16.0,
            mass_g=650.0,
            size=Box(132.0, 97.0, 80.0),
        ),
    ),
    "camcorder": (
        "Camcorder, small sensor",
        Camera(
            mount="camcorder",
            sensor_long_mm=6.0,
            sensor_short_mm=3.4,
            modes=(
                Mode("4K", 3840, 2160, CINE_RATES, 0.0, 60.0),
                Mode("Full HD", 1920, 1080, (*CINE_RATES, 50.0, 60.0), 0.0, 28.0),
            ),
            stabilisers=(Stabiliser("digital", 0.08, 60.0),),
            shutters=STILL_SHUTTERS,
            sound_up_to_hz=60.0,
            autofocus_up_to_hz=60.0,
            read_out_ms=None,
            mass_g=500.0,
            size=Box(70.0, 75.0, 140.0),
        ),
    ),
}
"""Key to name and camera."""


def _lens(
    low: float,
    high: float,
    stabiliser: bool,
    mass: float,
    long: float,
    wide: float,
    mount: str = "mirrorless",
) -> Lens:
    return Lens(mount, low, high, stabiliser, mass, long, wide, round(0.45 * long))


LENSES: dict[str, tuple[str, Lens]] = {
    "phone_main": ("Phone, main lens", _lens(6.5, 6.5, True, 0.0, 6.0, 10.0, "phone")),
    "phone_wide": ("Phone, wide lens", _lens(3.25, 3.25, False, 0.0, 6.0, 10.0, "phone")),
    "phone_tele": ("Phone, long lens", _lens(19.5, 19.5, True, 0.0, 6.0, 10.0, "phone")),
    "pocket_zoom": (
        "Pocket zoom, 24–70 equivalent",
        _lens(8.8, 25.7, True, 0.0, 30.0, 45.0, "pocket"),
    ),
    "wide_zoom": ("Wide zoom 16–35", _lens(16.0, 35.0, False, 480.0, 100.0, 80.0)),
    "standard_zoom": ("Standard zoom 24–70", _lens(24.0, 70.0, False, 700.0, 120.0, 85.0)),
    "small_zoom": ("Small zoom 16–50", _lens(16.0, 50.0, True, 120.0, 32.0, 65.0)),
    "normal": ("Fixed 35", _lens(35.0, 35.0, False, 280.0, 65.0, 66.0)),
    "short_tele": ("Fixed 85", _lens(85.0, 85.0, False, 470.0, 85.0, 78.0)),
    "long_zoom": ("Long zoom 70–200, stabilised", _lens(70.0, 200.0, True, 1200.0, 200.0, 90.0)),
    "camcorder_zoom": ("Camcorder zoom", _lens(4.5, 90.0, True, 0.0, 60.0, 55.0, "camcorder")),
}


def _support(
    kind: SupportKind,
    mass: float,
    box: tuple[float, float, float],
    at: tuple[float, float, float],
    *,
    carried: bool = True,
    length_mm: float | None = None,
    route: Route | None = None,
) -> Support:
    return Support(kind, mass, Box(*box), Place(*at), carried, length_mm, route)


SUPPORTS: dict[str, tuple[str, Support]] = {
    "neck_strap": (
        "Neck strap, long",
        _support("strap", 60, (40, 5, 5), (0, 60, 0), length_mm=1500, route="neck"),
    ),
    "arm_strap": (
        "Strap under one arm",
        _support("strap", 60, (40, 5, 5), (0, 60, 0), length_mm=1700, route="under_arm"),
    ),
    "chest_strap": (
        "Short strap to the chest",
        _support("strap", 50, (40, 5, 5), (0, 60, 0), length_mm=1000, route="chest"),
    ),
    "monopod": ("Monopod", _support("monopod", 600, (35, 500, 35), (0, -250, 0), carried=False)),
    "pole_cloth": (
        "Walking pole with a folded cloth",
        _support("pole", 350, (20, 1200, 20), (0, -30, 0), carried=False),
    ),
    "top_handle": ("Top handle", _support("top_handle", 180, (30, 40, 110), (0, 150, 0))),
    "cage": ("Cage", _support("cage", 250, (150, 115, 85), (0, 50, 0))),
    "small_tripod": (
        "Small tripod, folded under as a weight",
        _support("weight", 400, (45, 160, 45), (0, -85, 0)),
    ),
    "battery": ("Spare battery as a weight", _support("weight", 90, (40, 55, 20), (0, 40, -60))),
    "bean_bag": (
        "Bag to rest on",
        _support("bag", 500, (200, 80, 150), (0, -40, 0), carried=False),
    ),
    "cloth": ("Folded cloth", _support("cloth", 80, (200, 20, 150), (0, -10, 0), carried=False)),
}

PHONE_OPTICS = Optics(2, 30.0, 6.5, True, False, False, None)
MIRRORLESS_OPTICS = Optics(0, 25.0, 35.0, False, True, False, 50.0)

SET_UPS: dict[str, tuple[str, str, str, Optics, tuple[str, ...]]] = {
    "phone_hands": ("Phone in two hands", "phone", "phone_main", PHONE_OPTICS, ()),
    "mirrorless_strap": (
        "Full-frame mirrorless, 35, neck strap",
        "full_mirrorless",
        "normal",
        MIRRORLESS_OPTICS,
        ("neck_strap",),
    ),
}
"""Key to name, camera, lens, optics and supports."""

USUAL_SET_UP = "phone_hands"
"""What is assumed while a newcomer has said nothing: 26 mm equivalent."""
