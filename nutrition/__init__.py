"""The computation of the job: plain Python that knows nothing of the web."""
