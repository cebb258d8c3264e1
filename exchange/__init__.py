"""A client in formats that other programs read, out and in."""
