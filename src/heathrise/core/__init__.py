"""The trade's rules and computation: no web, no database, no interface."""
