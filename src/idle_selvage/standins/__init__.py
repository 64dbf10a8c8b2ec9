"""Small simulated stand-ins for outside devices and services: a washer, a shop's price list, a digital tape."""
