"""Long work: the queue, worker processes and their supervisor, and one thin task a kind."""
