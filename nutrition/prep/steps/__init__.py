"""What a cook wrote of the work, read: what is done, how long, where, in which order."""
