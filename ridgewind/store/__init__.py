"""SQLite by plain SQL: the only place where SQL stands."""
