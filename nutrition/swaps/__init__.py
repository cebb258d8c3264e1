"""Another food in a line's place, less of it, thinned; what fills a shortfall; and which of them is
offered for which gap."""
