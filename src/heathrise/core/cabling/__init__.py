"""Cable: what each category carries, ways through the building, lengths and boxes."""
