"""Whether a take can be saved by holding its subject, and at what cost."""

from __future__ import annotations

from dataclasses import replace

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.judge import polish_warnings
from ridgewind.core.judge.analysis import thinned_subject
from ridgewind.core.judge.asked import Asked
from ridgewind.core.judge.hold import HeldFrames, Hold, followed_stretch, hold_frames
from ridgewind.core.judge.lee import LONGEST_LEE_SHARE, passes
from ridgewind.core.judge.polish_warnings import enlarging
from ridgewind.core.judge.recipe import predicted, recipe_of
from ridgewind.core.judge.remedy import Remedy
from ridgewind.core.motion.subject import Subject
from ridgewind.core.words import time_words

NOT_MARKED = "Not open: mark what to hold in the picture first (M)."


def hold_remedy(asked: Asked) -> Remedy:
    """The subject held still, or gliding where that alone fits into the brief's crop. It passes
    where the subject and what is behind it both do."""
    brief, clip, subject = asked.brief, asked.clip, asked.subject
    nominal = asked.price(crop_pct=brief.most_crop_pct, steps=("hold",))
    if subject is None:
        return Remedy("hold", False, NOT_MARKED, nominal)
    shown = thinned_subject(subject, asked.analysis.motion.t_s, asked.step)
    stretch = followed_stretch(shown, asked.as_shot())
    if stretch is None:
        return Remedy("hold", False, "Not open: the subject is not seen in this take.", nominal)
    start_s, end_s = stretch
    length_s = end_s - start_s
    whole = length_s >= LONGEST_LEE_SHARE * clip.duration_s
    if not whole and length_s < brief.wanted_s:
        reason = (
            f"Not open: the subject is lost. It is followed for {time_words(length_s)},"
            f" from {time_words(start_s)}; you want {brief.wanted_s:g} s."
        )
        return Remedy("hold", False, reason, nominal)
    try:
        still, gliding = (_frames(asked, shown, stretch, glide) for glide in (False, True))
    except InvalidArgumentError as error:
        return Remedy("hold", False, f"Not open: {error.rule}.", nominal)
    glide = still.crop_pct > brief.most_crop_pct
    frames = gliding if glide else still
    if frames.crop_pct > brief.most_crop_pct:
        reason = (
            f"Not open: held still it takes {still.crop_pct:.1f} % crop, gliding"
            f" {gliding.crop_pct:.1f} %, of {brief.most_crop_pct:g} %."
        )
        return Remedy("hold", False, reason, nominal)
    cut_share = 0.0 if whole else max(0.0, 1.0 - length_s / max(clip.duration_s, 1e-3))
    remedy = Remedy(
        kind="hold",
        passes=False,
        reason="",
        points=asked.price(
            cut_share=cut_share,
            crop_pct=frames.crop_pct,
            enlarge=enlarging(brief, clip, crop_pct=frames.crop_pct),
            steps=(*(("cut",) if cut_share else ()), "hold"),
        ),
        start_s=start_s,
        end_s=end_s,
        step=asked.step,
        plays_s=length_s,
        crop_pct=frames.crop_pct,
        cost=f"{frames.crop_pct:.1f} % crop",
        hold=Hold(glide, subject.marks),
    )
    return _weighed(asked, remedy)


def _frames(asked: Asked, shown: Subject, stretch: tuple[float, float], glide: bool) -> HeldFrames:
    return hold_frames(
        shown,
        start_s=stretch[0],
        end_s=stretch[1],
        glide=glide,
        aspect=asked.analysis.motion.aspect,
        upright=asked.clip.upright,
    )


def _weighed(asked: Asked, remedy: Remedy) -> Remedy:
    """With what it should read, of the subject and of what is behind it, and whether that will
    do."""
    brief = asked.brief
    found = predicted(recipe_of(remedy), asked.analysis, asked.clip, brief, subject=asked.subject)
    if found.gust is None or found.subject_gust is None:
        return replace(remedy, reason="Not measurable behind the subject.")
    curve = asked.analysis.polish(step=asked.step, upright=asked.clip.upright)
    blur_pct = 0.0 if curve is None else polish_warnings.smear_pct(curve, asked.clip)
    smears = blur_pct > polish_warnings.MOST_BLUR_PCT
    behind = passes(found.gust, found.peak, brief)
    good = behind and found.subject_gust <= brief.target
    assert remedy.hold is not None
    way = "Gliding" if remedy.hold.glide else "Still"
    reason = f"{way}: it reads {found.subject_gust:.1f}, what is behind it {found.gust:.1f}."
    if smears:
        reason += " It smears."
    elif not behind:
        reason += " That is over target."
    warnings = []
    if blur_pct > polish_warnings.BLUR_PCT:
        warnings.append(f"Motion blur stays ({blur_pct:.2f} %).")
    return replace(
        remedy,
        passes=good and not smears,
        gust=found.gust,
        peak=found.peak,
        subject_gust=found.subject_gust,
        reason=" ".join([reason, *warnings]),
        warnings=tuple(warnings),
    )
