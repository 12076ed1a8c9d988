"""The shop's days: setups shared by the steps of all boards, in order."""
