"""Laboratory values between US and SI units.

Factors of the SI conversion table of the AMA Manual of Style, and the pairs that NGSP and IFCC
print for HbA1c, both from memory."""

from unittest import TestCase

from nutrition.targets.blood import convert

FACTORS = (
    ("glucose", "mg/dL", "mmol/L", 0.0555),
    ("ldl", "mg/dL", "mmol/L", 0.0259),
    ("hdl", "mg/dL", "mmol/L", 0.0259),
    ("triglycerides", "mg/dL", "mmol/L", 0.0113),
    ("creatinine", "mg/dL", "µmol/L", 88.4),
    ("phosphate", "mg/dL", "mmol/L", 0.323),
    ("potassium", "mEq/L", "mmol/L", 1.0),
    ("bicarbonate", "mEq/L", "mmol/L", 1.0),
    ("hemoglobin", "g/dL", "g/L", 10.0),
    ("hemoglobin", "g/dL", "mmol/L", 0.6206),
    ("ferritin", "ng/mL", "µg/L", 1.0),
    ("b12", "pg/mL", "pmol/L", 0.738),
    ("homocysteine", "mg/L", "µmol/L", 7.397),
    ("vitamin_d", "ng/mL", "nmol/L", 2.496),
    ("tsh", "µIU/mL", "mIU/L", 1.0),
    ("albuminuria", "mg/g", "mg/mmol", 0.113),
    ("mma", "µmol/L", "nmol/L", 1000.0),
    ("systolic", "mmHg", "kPa", 0.1333),
    ("waist", "in", "cm", 2.54),
)
# [%], [mmol/mol]
HBA1C = ((5.0, 31), (6.0, 42), (6.5, 48), (7.0, 53), (8.0, 64), (9.0, 75), (10.0, 86))


class Units(TestCase):
    def test_factors(self):
        for key, unit, into, factor in FACTORS:
            with self.subTest(f"{key}: {unit} to {into}"):
                found = convert(key, 10.0, unit, into) / 10.0
                self.assertAlmostEqual(found / factor, 1.0, delta=0.004)

    def test_hba1c(self):
        for percent, per_mol in HBA1C:
            self.assertEqual(round(convert("hba1c", percent, "%", "mmol/mol")), per_mol)
            self.assertAlmostEqual(convert("hba1c", per_mol, "mmol/mol", "%"), percent, delta=0.05)
