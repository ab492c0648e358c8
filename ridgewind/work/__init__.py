"""Long work: the measuring pass, the persistent queue and its tasks."""
