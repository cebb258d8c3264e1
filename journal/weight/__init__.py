"""Weigh-ins and the line of weight."""
