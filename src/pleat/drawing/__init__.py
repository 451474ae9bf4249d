"""Results to drawings in millimetres, and drawings to SVG for the screen and to PDF for the printer."""
