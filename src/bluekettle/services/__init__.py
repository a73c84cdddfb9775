"""Use cases: one function each, holding its transaction. The only place where store and core
meet.
"""
