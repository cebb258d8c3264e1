"""An installation that runs: backups that were opened and checked, what is wrong said in time."""
