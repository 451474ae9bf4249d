"""What every binding through holes along an edge has in common: where they lie, how they are punched, what
can go wrong, what is done."""
