"""Templates at full size: what is to be drilled and cut, as DXF, SVG and PDF."""
