"""The patterns makers know, each as moves on so many rows and stations, with what it promises. Common
practice, no source."""
