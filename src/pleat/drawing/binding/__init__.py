"""The drawings of bindings, one module a member."""
