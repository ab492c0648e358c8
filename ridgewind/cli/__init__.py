"""The command `ridgewind`: a module a subcommand."""
