"""Two plates side by side, and the density ladder."""
