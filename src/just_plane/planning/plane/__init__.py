"""The Plane station: the section of the plan, its words, and what else can be done at the plane."""
