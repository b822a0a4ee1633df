"""From a row of pieces to a rig in the core's terms.

``kinds`` is the one table of what each kind of gear does; ``chain`` says which rows can be, ``lens_numbers`` reads the
lens, ``rigging`` builds and focuses, ``outline`` lays the pieces out in millimetres, ``cautions`` says what to mind.
"""
