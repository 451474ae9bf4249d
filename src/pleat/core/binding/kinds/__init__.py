"""A kind of binding is one module here; loading the package loads and so registers them all."""

from importlib import import_module
from pkgutil import iter_modules

for _module in iter_modules(__path__):
    import_module(f"{__name__}.{_module.name}")
