"""What labels and people write in other units than the table's."""

# Energy: the thermochemical calorie. [kJ/kcal]
KJ_PER_KCAL = 4.184
# Salt is two and a half times its sodium, as European labels reckon: Regulation (EU) No 1169/2011,
# annex I, from memory. [g for each g of sodium]
SALT_PER_SODIUM = 2.5
