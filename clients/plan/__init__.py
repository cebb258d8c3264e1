"""The plan in force for a client: targets by version, the gate, cautions, the strip."""
