"""A digital caliper on a line: how it is read, and a stand-in for those who have none.

The protocol (``docs/caliper.md``): lines of ASCII over TCP, ended by a line feed. Pleat sends ``READ`` and
gets ``R 1.042 mm`` or ``R 0.0410 in``, or ``ERR`` and a word. Lines that begin with ``#`` are remarks, which
a device ignores; Pleat says in them what it asked the maker to put between the jaws.
"""
