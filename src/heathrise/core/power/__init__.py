"""Power over Ethernet: classes, what a loop takes, budgets."""
