"""The drawings of blocks, one module a member."""
