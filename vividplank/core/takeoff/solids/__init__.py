"""Parts from solids: oriented boxes, like bodies, fused boards."""
