"""Settings: what a remedy's costs weigh, and what was cleared from the disk."""
