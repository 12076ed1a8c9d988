"""Search effort: how broadly boards are asked for patterns, as much as there is time for.

The figures were measured on shop jobs of 100 to 1,000 parts (bench/growth.py): a plan found with
the least effort costs 3 to 10 % more.
"""

#: Ways to cut a board followed side by side, ways tried to go on with each, and item types looked
#: at.
Effort = tuple[int, int, int]
#: For the first plan, and where there is no time for more; None is as many ways as the generator
#: likes, for nearly all item types.
FIRST, LEAST = (1, 1, 25), (1, 1, 40)
#: After this share of the time what has not been asked yet is asked with the least care.
LATE = 0.75
#: To ask all with full care takes so many times as long as the first plan, and so many times more
#: for each board.
_TIMES, _TIMES_MORE = 12, 0.1
#: What takes that share of it.
_CARES: tuple[tuple[float, Effort | None], ...] = ((1.0, None), (0.4, (1, 2, 80)))
#: Share of the time there is for it.
_SHARE = 0.9


def affordable(first: float, boards: int, seconds: float) -> Effort | None:
    """The most care for which there is time, when the first plan of so many boards took `first` of
    all these seconds.
    """
    full = first * (_TIMES + _TIMES_MORE * boards)
    return next((effort for share, effort in _CARES if share * full <= _SHARE * seconds), LEAST)
