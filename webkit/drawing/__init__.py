"""Geometry for the drawings: numbers in, SVG coordinates out."""
