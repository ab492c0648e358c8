"""What the command line may set of a technique, and how it says so."""

from __future__ import annotations

from typing import get_args

from ridgewind.standin.body import Hold, Stance, Support

CHOICES: dict[str, tuple[str, ...]] = {
    "stance": get_args(Stance),
    "hold": get_args(Hold),
    "support": get_args(Support),
}

HELP = {
    "stance": "How the body stands.",
    "contacts": "Points of contact, 1 to 4.",
    "elbows_in": "Elbows tucked to the ribs.",
    "strap_tension": "0 slack to 1 as hard as it goes; best near 0.6.",
    "mass_kg": "Mass of the rig.",
    "hold": "Camera pressed to the trunk, or carried off it.",
    "support": "What carries the camera.",
    "stabiliser": "Share of fast rotation that lens or body removes, 0 to 1.",
    "cadence_hz": "Steps a second; 0 stands still.",
    "landing": "Hardness of the heel, 0 to 2.",
    "fatigue": "0 fresh to 1: tremor doubles in 12 s.",
    "rough": "How many times worse the tremor is in the rough stretch.",
    "rough_from_s": "Where the rough stretch begins.",
    "rough_until_s": "Where it ends.",
    "buzz_deg": "Size of a steady buzz in pitch, degrees.",
    "buzz_hz": "Its frequency.",
    "tremor": "Size of the tremor, 1 is usual.",
    "breath": "Size of the breath, 1 is usual.",
    "sway": "Size of the body's sway and drift, 1 is usual.",
    "bounce": "Size of the up and down of a walk, 1 is usual.",
    "waddle": "Size of its side to side, 1 is usual.",
    "unevenness": "How much harder one foot lands than the other.",
    "swing_deg": "Size of a hung rig's swing, degrees.",
    "swing_hz": "Its frequency.",
    "swing_from_s": "When it begins.",
    "jolt_deg": "Size of a jolt in pitch, degrees.",
    "jolt_at_s": "When it comes.",
}
