"""Other machines that measure and render: their way in, and what the shooter sees of them."""
