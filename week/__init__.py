"""Weeks: a skeleton, favorites, what is planned of them, what is cooked when."""
