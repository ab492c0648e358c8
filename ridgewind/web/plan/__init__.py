"""Plan: briefs, drills, and sessions before they are run."""
