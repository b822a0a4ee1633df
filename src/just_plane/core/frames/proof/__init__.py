"""One sharp picture of a stack, to decide by: by depth, by detail, by detail within a window of depth."""
