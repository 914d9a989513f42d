"""The vault on disk: the only importer of sqlite3; also builds and reads corpus files."""
