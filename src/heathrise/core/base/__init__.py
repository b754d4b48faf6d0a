"""What every layer uses and nothing of the trade is in: bands, results kept, words, progress."""
