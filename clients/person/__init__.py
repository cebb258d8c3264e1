"""Who the client is: the record, its forms, its history, what differs between saves."""
