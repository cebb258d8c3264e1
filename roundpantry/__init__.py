"""The roof: settings, addresses, the menu, checks; imports all, imported by nothing."""
