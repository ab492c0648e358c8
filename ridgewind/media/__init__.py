"""The only place that touches the video library: probe, decode, encode, stills, copies."""
