"""The sample scenario: a boathouse supper and a few past cooks, loaded through the services."""

from bluekettle.demo.boathouse import fill

__all__ = ["fill"]
