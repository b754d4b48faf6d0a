"""Controller-managed settings: networks, wireless names, radios and switch ports."""
