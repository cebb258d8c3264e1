"""What was eaten: told in words, logged by day, averaged; what was liked, how it felt."""
