"""The job's rules and computation: pure functions and frozen results, no interface code (see
README.md).
"""
