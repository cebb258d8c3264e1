"""What food is made of: nutrients and the amounts of them with ranges and what is unknown,
foods and how they are found, classified and cooked, and what is eaten: a portion, a dish."""
