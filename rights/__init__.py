"""What a client has a right to: to know who did what, to have everything, to be forgotten."""
