"""The record: who read, changed, exported, printed and handed over what, when; chained, so that
what was written once cannot be changed in silence."""
