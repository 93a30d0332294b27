"""The stand-in recorder: a simulated power source and recorder that speaks the gateway's interface."""
