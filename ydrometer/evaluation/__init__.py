"""From documents to measures: designs as arrays, their results, and what is asked of one design at once."""
