"""The practice and its people; the shell, versions, undo and removal of what is kept."""
