"""What wires, rods and electrodes lay down: densities, efficiencies, bead areas, burn-off."""
