"""The demo project: the reading-room settle of our made-up workshop, in white oak and ash."""
