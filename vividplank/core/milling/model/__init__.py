"""What milling is made of: steps, passes, how thick blanks leave the planer."""
