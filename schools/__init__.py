"""The schools of practice side by side, and a practice's own copies of them."""
