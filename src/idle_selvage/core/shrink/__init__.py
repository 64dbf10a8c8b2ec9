"""How much a cloth shrinks, how sure that is, and how it is treated before cutting."""
