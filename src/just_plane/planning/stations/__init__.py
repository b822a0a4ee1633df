"""One module a station: ``f(setup) -> Answered(section, said)``."""
