"""What goes out on paper: cut lists, labels, chalk sheets, route cards and setting sheets."""
