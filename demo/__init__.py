"""The demo practice: a made-up harbor town."""
