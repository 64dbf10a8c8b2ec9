"""How much to buy: the purchase and its lines, offers, helps, the envelope, strips, and the list."""
