"""Frames of a stack measured: where each lies, what it holds sharp, what went wrong. OpenCV does the filtering."""
