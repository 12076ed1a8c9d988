"""Simulated stand-ins for the instruments of a bench, each behind the interface a real one would
have.
"""
