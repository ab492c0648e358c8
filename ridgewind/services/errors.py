"""Errors of the services.

ServiceError
├── NotReadyError   what is asked needs something that is not there yet
├── TimeLineError   a time line from elsewhere cannot be used
├── ArchiveError    an archive cannot be restored
└── GoneError       what is asked for is gone for good
"""

from __future__ import annotations


class ServiceError(Exception):
    """message: what happened and why. hint: what to do next."""

    def __init__(self, message: str, hint: str) -> None:
        super().__init__(message)
        self.message, self.hint = message, hint


class NotReadyError(ServiceError):
    """What is asked needs something that is not there yet."""


class TimeLineError(ServiceError):
    """A time line from elsewhere cannot be read, or uses nothing that is here."""


class ArchiveError(ServiceError):
    """An archive is damaged, of another kind, or cannot be put where it should."""


class GoneError(ServiceError):
    """What is asked for is gone for good."""


NOT_MEASURED = ("This take has not been measured.", "Wait for it, or measure it.")
UNSETTLED = ("It is not settled whose motion this take shows.", "Say it on the take’s page first.")
NO_SHOT = ("No shot of this take can be measured.", "Bring in another take.")
NO_PICTURE = ("This take has no picture.", "A motion log alone shows nothing.")
NO_GUST = ("This has no gust to set beside it.", "Measure it first.")
NO_HAND = ("No measured take is filed under this technique.", "Film it, and file its films.")
NO_SETUP = ("There is no set-up to film it with.", "Make one in Kit first.")
NO_SUBJECT = ("No subject is marked in this take.", "Mark it in the picture first.")
NOTHING_ELSE = (
    "Nothing was followed in this take but what you marked.",
    "Show in the picture where the background is.",
)
PUT_ASIDE = (
    "This has to be measured again, and its original was put aside.",
    "Bring the original back first.",
)
NO_LOG = ("This take has no motion log.", "Add one, a CSV file of turning rates.")
NOTHING_JOINED = (
    "This sequence has no take that is measured.",
    "Let takes meet its shots first.",
)
ORIGINAL_GONE = ("This original is gone for good.", "Bring the clip in again.")
