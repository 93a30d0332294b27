"""The tables of the codes and of the trade: how they load, what owners of copies corrected, what they hold."""
