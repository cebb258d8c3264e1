"""The ground of the web: what every page and every area stands on; nothing of the job."""
