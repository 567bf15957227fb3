"""Practice: what people have of each idea, sets for a class, and the pupils who join one."""
