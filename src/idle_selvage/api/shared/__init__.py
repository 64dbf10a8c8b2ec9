"""What every stage's routes share."""
