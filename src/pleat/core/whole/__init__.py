"""The plan of a whole book: its eight pleats worked out in order, what it comes to at one glance, and its
JSON.

Knows everything below it: the document, all pleats, engines and materials. Begin with ``planning.make_plan``;
``ways_out`` tries what checks offer, ``overview`` sums a plan up, ``planfile`` writes it.
"""
