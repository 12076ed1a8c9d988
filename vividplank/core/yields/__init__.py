"""Where the wood went."""

from vividplank.core.yields.ledger import CATEGORIES, OPERATIONS, Account, BoardAccount, account

__all__ = ["CATEGORIES", "OPERATIONS", "Account", "BoardAccount", "account"]
