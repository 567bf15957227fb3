"""How much is taken at once, and how much is kept: every limit of sizes and counts in one table.

The server's own, the parsers', the proxy's (docs/hosting/nginx.conf) and the quotas' are these. It imports nothing of
Django, so that what serves can read it before the application is loaded.
"""

from __future__ import annotations

from ydrometer.base import strict_json

JSON_BODY = 4 * strict_json.LARGEST
"""Bytes of a body: room for a design, its mark and what stands around them."""
FORM = 16_000
"""Bytes of a body from somebody who is not signed in."""
PIECE = 1_000_000
"""Bytes of a piece of a file; the last one has what is left. It comes within the time of a request from a phone too."""
PHOTO = 12_000_000
"""Bytes of a photo as a phone makes it."""
BODY = max(JSON_BODY, PIECE, PHOTO)
"""Bytes of any request."""

LOG_FILE = 250_000_000
"""Bytes of a logger's file."""
ARCHIVE = 1_500_000_000
"""Bytes of an archive: more than all that a workshop may keep, which packs well but for its photos."""
ARCHIVE_UNPACKED = 3_000_000_000
"""Bytes of all its files together."""
ARCHIVE_FILES = 200_000
"""Files in it."""
HELD = 6_000_000_000
"""Bytes of all pieces that are on their way in or out, of everybody."""
MOST_HELD = 4
"""Files of one account that are on their way."""

MOST_WORKSHOPS = 30
"""That one account owns."""
MOST_INVITATIONS = 60
"""Of a workshop, open at once."""
MOST_TOKENS = 40
"""Of a workshop."""
MOST_RUNS = 5000
"""Of a vehicle."""
MOST_ENTRIES = 5000
"""Of a vehicle, said of its steps, and as many of its parts."""
MOST_PHOTOS = 200
"""Of a vehicle."""
MOST_PHOTO_BYTES = 1_000_000_000
"""Of all photos in a workshop."""
MOST_INSPECTIONS = 1000
"""Of a vehicle."""
MOST_TEMPLATES = 100
"""Of own steps, in a workshop."""
MOST_SETS = 100
"""Of exercises, in a workshop."""
MOST_RACES = 100
"""In a workshop."""
MOST_PUPILS = 60
"""Of a set."""
MOST_ANSWERS = 1000
"""Of a pupil."""
MOST_LOG_FILES = 40
"""Of a vehicle; older ones go."""
MOST_VEHICLES = 400
"""Of a workshop."""
MOST_REVISION_BYTES = 400_000_000
"""Of all revisions in a workshop."""
MOST_OPEN_SEARCHES = 8
"""Of one account, waiting or running."""
