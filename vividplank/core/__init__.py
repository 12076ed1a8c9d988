"""The job itself: plain Python without interface, database, network or clock."""
