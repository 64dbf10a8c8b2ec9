"""Small simulated stand-ins for outside devices and services (washer, shop, tape): none is needed yet."""
