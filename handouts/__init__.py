"""What a client is handed: pages that are printed."""
