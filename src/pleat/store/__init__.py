"""Books and papers in SQLite: models, repository and migrations. Rows to core objects and back; no
arithmetic."""
