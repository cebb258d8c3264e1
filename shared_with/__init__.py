"""The link that a client has: what is planned for them, on their own phone, and what they tell."""
