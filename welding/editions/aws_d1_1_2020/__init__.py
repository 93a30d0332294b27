"""AWS D1.1, Structural Welding Code, Steel, edition 2020."""
