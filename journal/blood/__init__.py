"""Blood values, pressure and waist."""
