"""The shapes that a database has had, each made from the one before."""
