"""Constants, as rows with their source beside them."""
