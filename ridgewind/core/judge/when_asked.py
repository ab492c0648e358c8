"""Values in a row, each worked out when it is first asked for."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import TypeVar, overload

Value = TypeVar("Value")


class WhenAsked(Sequence[Value]):
    """A row of `count` values, kept once they are known. make: works one out by its place. Two
    threads that ask at once may both work it out, to the same end."""

    def __init__(self, count: int, make: Callable[[int], Value]) -> None:
        self._make = make
        self._known: list[tuple[Value] | None] = [None] * count

    def __len__(self) -> int:
        return len(self._known)

    @overload
    def __getitem__(self, place: int) -> Value: ...

    @overload
    def __getitem__(self, place: slice) -> Sequence[Value]: ...

    def __getitem__(self, place: int | slice) -> Value | Sequence[Value]:
        if isinstance(place, slice):
            return [self[one] for one in range(*place.indices(len(self)))]
        found = self._known[place]
        if found is None:
            self._known[place] = found = (self._make(range(len(self))[place]),)
        return found[0]
