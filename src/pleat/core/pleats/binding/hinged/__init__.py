"""Leaves held by folded hinges: strips with hills, chains of connectors, zigzag spines, tabs in a row, end
panels."""
