"""A whole shop in one file, and back: database by the server's own tools, photos, recordings, the key of the addresses."""
