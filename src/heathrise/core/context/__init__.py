"""What is known of a plan before any discipline judges it: what takes part, whose figures hold,
storeys, channels of the site, and the one shape of every verdict."""
