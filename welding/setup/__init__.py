"""Set-up of a pass: tungsten, cups, gas flow, pulse, and which fields a process has."""
