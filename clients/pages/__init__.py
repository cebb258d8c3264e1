"""The pages of a client: the list, the first visit, the record; whose a page is."""
