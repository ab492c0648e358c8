"""Pure computation on arrays and dataclasses: no clock, no files, no settings."""
