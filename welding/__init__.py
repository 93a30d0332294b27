"""The trade: quantities, heat, joints, documents, checks and code editions of fusion welding.

Pure Python. No Django, no database, no clock, no network: everything here is a function of its
arguments, so a desk, a script, a test and a server all get the same answer. pydantic appears only
in ``documents/``, where JSON comes in.
"""
