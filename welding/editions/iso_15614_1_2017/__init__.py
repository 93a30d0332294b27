"""ISO 15614-1, welding procedure test for arc and gas welding of steels, edition 2017."""
