"""What Pleat does for the web and the command line alike: load, plan, change, store."""
