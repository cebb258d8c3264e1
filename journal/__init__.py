"""The follow-up: what was weighed, eaten and measured, why it stalls, the visits."""
