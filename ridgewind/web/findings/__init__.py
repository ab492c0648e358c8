"""Findings: what the shooter's marks say."""
