"""Blue Kettle: plans, times and guides food made tender by one heat and finished by another."""

__version__ = "0.1.0"
