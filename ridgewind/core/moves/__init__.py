"""Path to the move that was meant: what it was, how well it was made, how it can be joined."""

from ridgewind.core.moves.move import Join, MeasuredMove, MoveReading, read_move

__all__ = ["Join", "MeasuredMove", "MoveReading", "read_move"]
