"""Practice between the core and the page: pictures of a drill, words for its knobs, what to take next."""
