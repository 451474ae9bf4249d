"""The browser's side: Flask, server-rendered, htmx for round trips."""
