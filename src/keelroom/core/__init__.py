"""The computation: NumPy only, no files, no interface. Values are SI, temperatures in degrees Celsius."""
