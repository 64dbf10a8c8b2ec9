"""The demo scenario: a harbour-town choir sews its own concert outfits. All of it is invented."""
