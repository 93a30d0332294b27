"""Quantities as people say them: reading, converting, writing.

Inside the core a quantity is a plain float whose name ends in its unit; pint and fluids are used
here only, at the edge.
"""
