"""What a screen shows, put together in one answer."""
