"""What stands on a package: printed values and the ranges behind them, the ingredient list, the
claims on its front, and the food that a label becomes."""
