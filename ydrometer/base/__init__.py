"""What everything stands on: errors, units, reading documents, compiling kernels, tables of constants."""
