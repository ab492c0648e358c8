"""The stand-in camera: a model of a lens, a hand, a body and a gait filming made scenes.

Nothing here is a real recording. It exists because there is no camera where the program is
built and tested, and so that the demo and the tests have clips whose true motion is known.
"""

SIMULATED = {"comment": "Rendered by the stand-in camera; not a real recording."}
"""What every film of it says of itself."""
