"""How an arc is usually run: amps, volts, wire feed and travel by process, metal and thickness."""
