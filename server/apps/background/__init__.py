"""Work that takes longer than a request may: asked for, taken up by a process beside the server, watched."""
