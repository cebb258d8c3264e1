"""Days: meals of dishes against the targets they are planned for, kept as planned."""
