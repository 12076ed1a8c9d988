"""What a layout is made of: plans, item types, cutting patterns, fixings, and the audit."""
