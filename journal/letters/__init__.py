"""Letters to a client's physician."""
