"""Where wood is bought: suppliers, their boards, prices and tickets."""
