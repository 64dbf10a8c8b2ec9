"""Buy: what to ask for, where, with whom, and whether the cupboard will do."""
