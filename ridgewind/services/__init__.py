"""What the pages ask: one module a question."""
