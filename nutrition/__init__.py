"""The core: the computation of the job, in packages by what they hold. It knows nothing of the web.

A package imports only from the floors below it; docs/architecture.md shows them."""

__version__ = "0.28.0"
