"""The diagnosis on the command line."""
