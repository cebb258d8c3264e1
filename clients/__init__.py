"""A client: the person, the plan in force for them, and the pages of both."""
