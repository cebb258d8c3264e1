"""HL7 FHIR R4: a client, what is measured of them, what they are to eat and what they ate, out and
in. docs/formats.md says how each thing is written."""
