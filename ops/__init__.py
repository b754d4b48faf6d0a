"""Sets up, starts and checks the project on a plain Debian machine."""
