"""Live steadiness: pictures and turning rates in, gust of the last second out."""
