"""What settings make of a weld: power, pool, bead, heat-affected zone, arc, shielding, distortion."""
