"""Measuring and rendering on other machines: what goes over the wire, and both of its ends."""
