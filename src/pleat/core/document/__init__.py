"""The book as a document: what was decided and measured, how it is read, written and changed.

Knows the records of all pleats, which are its fields, and nothing of plans. Begin with ``book.Book``;
``bookfile`` reads and writes it, ``formats`` brings older files up to date, ``editing`` changes it,
``recipes`` names books to start from.
"""
