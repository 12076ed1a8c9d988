"""The shop: its machines, its order of milling, its cautions."""
