"""The check before rolling, made from the set-up and the drill."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ridgewind.core.kit.items import Camera, Lens, Optics, Support
from ridgewind.core.practice.drill import Drill


@dataclass(frozen=True)
class Check:
    """One thing to look at before rolling; key: names it, words: said and shown."""

    key: str
    words: str


def checks_before(
    drill: Drill,
    camera: Camera,
    lens: Lens,
    optics: Optics,
    supports: Sequence[Support],
    *,
    strap_mark: str | None,
) -> tuple[Check, ...]:
    """Short, in the order of the hands. strap_mark: where the strap is marked, in words."""
    kinds = {support.kind for support in supports}
    firm = bool(kinds & {"monopod", "bag"}) or drill.family == "leaning"
    on = any((optics.lens_stabiliser, optics.body_stabiliser, optics.digital_stabiliser))
    found = [_stabiliser(firm=firm, on=on, has=lens.stabiliser or bool(camera.stabilisers))]
    shutter = "" if optics.shutter is None else f", shutter 1/{optics.shutter:g}"
    found.append(Check("rate", f"{optics.rate_hz:g} frames a second{shutter}."))
    found.append(Check("locked", "Exposure, focus and white balance locked."))
    found.append(Check("clean", "Lens clean, horizon level."))
    if "strap" in kinds or "strap" in drill.needs:
        at = f" at {strap_mark}" if strap_mark else ""
        found.append(Check("strap", f"Strap taut at its mark{at}."))
    if kinds & {"monopod", "pole", "top_handle", "cage"} or drill.family == "monopod":
        found.append(Check("locks", "Locks and plate checked."))
    found.append(Check("card", "Room on the card, battery charged."))
    if drill.family == "walking" or drill.space == "path":
        found.append(Check("ground", "Ground looked over, end to end."))
    if drill.tempo == "move":
        found.append(Check("end", "End frame rehearsed."))
    return tuple(found)


def _stabiliser(*, firm: bool, on: bool, has: bool) -> Check:
    if not has:
        return Check("stabiliser", "No stabiliser to mind.")
    if firm:
        now = "it is on in your set-up" if on else "it is off"
        return Check(
            "stabiliser", f"On a support: stabiliser off unless it is made for one; {now}."
        )
    return Check("stabiliser", f"By hand: stabiliser on; it is {'on' if on else 'off'}.")
