"""True-size paper: strips, part lists and the page they stand on, as SVG in mm and as PDF."""
