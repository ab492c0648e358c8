-- A short pan in a long hold is read as itself: moves are worked out anew.
update summary set stale = stale + 1;
