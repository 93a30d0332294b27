"""AWS D1.1:2020, clause 6 part C: welders, welding operators and tack welders."""
