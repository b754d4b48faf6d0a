"""Switch ports: which cable goes into which, or why it cannot."""
