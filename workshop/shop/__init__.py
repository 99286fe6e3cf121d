"""The shop: its tools and its way of reading figures."""
