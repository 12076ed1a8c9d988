"""Finding a plan: ruin and recreate over boards, with a restricted master over patterns."""
