"""The drawings of covers, one module a member."""
