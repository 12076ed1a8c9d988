"""What the store refuses."""


class NotFoundError(LookupError):
    """There is no such thing (any more)."""


class VersionConflict(Exception):
    """The edit was made from an older version than the one kept; `version` is the one kept."""

    def __init__(self, version: int) -> None:
        super().__init__(
            f"somebody else, or another tab, has edited this since: it is at version {version}"
        )
        self.version = version


class NothingToUndo(Exception):
    """Nothing to undo or redo."""


class InDoubt(Exception):
    """The database went away while a transaction was being committed: nobody knows whether it was
    kept.
    """

    def __init__(self) -> None:
        super().__init__(
            "the database went away while this was being saved: it may be kept or not. Look at "
            "what stands "
            "before you do it again"
        )
