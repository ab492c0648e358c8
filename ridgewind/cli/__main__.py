"""`python -m ridgewind.cli`."""

from ridgewind.cli.main import main

main()
