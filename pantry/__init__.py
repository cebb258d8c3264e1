"""What a practice adds to the food table: packages, words, values in place of a row's."""
