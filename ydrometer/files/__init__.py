"""What leaves as a file or on standard output: results, reports, drilling templates, the self-check."""
