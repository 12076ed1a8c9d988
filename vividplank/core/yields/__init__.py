"""Where the wood went."""

from vividplank.core.yields.account import CATEGORIES, Account, BoardAccount, account

__all__ = ["CATEGORIES", "Account", "BoardAccount", "account"]
