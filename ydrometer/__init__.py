"""Ydrometer's computing core: gearing, motion and drawing, in SI units throughout.

Nothing here knows a web framework, a database or a screen. A design comes in as a document (`ydrometer.document`),
becomes arrays, is set in motion (`ydrometer.motion`) and leaves as measures (`ydrometer.evaluation`) or as a picture in
numbers (`ydrometer.drawing`). Each folder imports only from those below it; docs/layout.md lists them.
"""
