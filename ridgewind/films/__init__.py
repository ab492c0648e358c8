"""What is made of a film: measuring, splitting, following, rendering, previewing."""
