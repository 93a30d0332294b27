"""The tables of the codes and of the trade: how they load, what owners corrected, what they hold."""
