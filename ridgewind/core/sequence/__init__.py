"""From a list of shots to joined takes: what is planned, what is missing, and how takes join."""
