"""The tests of the core. None depends on how fast the machine is, nor on what else it does."""

from hypothesis import HealthCheck, settings

settings.register_profile(
    "any machine", deadline=None, suppress_health_check=[HealthCheck.too_slow]
)
settings.load_profile("any machine")
