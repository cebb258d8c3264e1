"""Work that takes longer than a page waits: a table, a lease, an end in words."""
