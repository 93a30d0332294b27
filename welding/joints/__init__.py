"""Section geometry of joints: areas and drawings in mm, for screen and paper alike.

x runs to the right, y downwards as on paper; the plate's upper surface is y = 0.
"""
