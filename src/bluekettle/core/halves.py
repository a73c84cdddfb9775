"""The members of an ensemble in two halves at once, where two cores are there.

Members know nothing of each other, so the figures are those of one run, bit for bit.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor
from functools import lru_cache
from typing import Any, NamedTuple, TypeVar

import numpy as np
from numba import config
from numpy.typing import NDArray

Figures = TypeVar("Figures", bound=NamedTuple)

CORES: int = vars(config)["NUMBA_NUM_THREADS"]
FEWEST = 32  # members from which a second thread is worth its start (numerical)


def in_halves(members: int, run: Callable[[slice], tuple[Any, ...]]) -> list[tuple[Any, ...]]:
    """Results of a compiled run over all members [-], in their order: two parts, or one where there
    are few members or one core.

    run : takes the members that it is to run; lets go of the interpreter while it runs.
    """
    if members < FEWEST or CORES < 2:
        return [run(slice(0, members))]
    middle = members // 2
    other = helpers().submit(run, slice(middle, members))
    first = run(slice(0, middle))
    return [first, other.result()]


def in_one(
    kernel: Callable[..., tuple[Any, ...]],
    figures: NamedTuple,
    own: Sequence[NDArray[Any]],
    shared: Sequence[Any],
) -> tuple[NDArray[Any], ...]:
    """The arrays that a compiled run gives for all members, in halves at once. It takes `figures`
    and `own`, which have a row for each member, and `shared`, which is the same for all.
    """
    members = own[0].shape[0]

    def run(part: slice) -> tuple[Any, ...]:
        """Some of the members."""
        some = part_of(figures, members, part)
        return kernel(some, *(one[part] for one in own), *shared)

    parts = in_halves(members, run)
    return tuple(joined(parts, place) for place in range(len(parts[0])))


def joined(parts: list[tuple[Any, ...]], place: int) -> NDArray[Any]:
    """One of the arrays that the parts returned, of all members."""
    return np.concatenate([part[place] for part in parts])


def part_of(figures: Figures, members: int, part: slice) -> Figures:
    """The same figures of some members: of a tuple, every array that has a row for each member."""
    cut = [
        one[part] if isinstance(one, np.ndarray) and one.shape[:1] == (members,) else one
        for one in figures
    ]
    return type(figures)._make(cut)


@lru_cache(maxsize=1)
def helpers() -> ThreadPoolExecutor:
    """Threads that run the second halves."""
    return ThreadPoolExecutor(CORES, thread_name_prefix="half")
