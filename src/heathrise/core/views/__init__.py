"""Questions beside an evaluation: what is bought, done, promised, proven and handed over."""
