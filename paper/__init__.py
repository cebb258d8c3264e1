"""Paper: one design for everything that is printed, in the browser and as PDF."""
