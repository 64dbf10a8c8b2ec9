"""HTTP and JSON: one blueprint per stage, one error shape, figures with their working."""
