"""What a cook writes, read, and amounts said back as a cook says them."""
