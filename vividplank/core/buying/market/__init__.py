"""Where wood is bought: sources, their boards, prices and tickets."""
