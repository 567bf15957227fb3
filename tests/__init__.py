"""The tests; the benches beside them share their designs."""

from tests import steady

steady.use()
