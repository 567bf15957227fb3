"""Files that are held in pieces."""

import uuid

from django.conf import settings
from django.db import models


class HeldFile(models.Model):
    """A file on its way in, of `size` bytes of which `came` are there; or one on its way out, which grows."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="+")
    size = models.BigIntegerField()
    came = models.BigIntegerField(default=0)
    touched_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        indexes = [models.Index(fields=["touched_at"])]

    def __str__(self) -> str:
        return f"{self.came:,} of {self.size:,} bytes"


class HeldPiece(models.Model):
    """A piece of a file: `limits.PIECE` bytes, the last one what is left."""

    file = models.ForeignKey(HeldFile, models.CASCADE, related_name="pieces")
    number = models.PositiveIntegerField()
    data = models.BinaryField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["file", "number"], name="one_held_piece_a_number")]
        ordering = ["number"]

    def __str__(self) -> str:
        return f"piece {self.number} of {self.file_id}"
