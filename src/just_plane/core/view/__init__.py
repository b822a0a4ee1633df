"""A camera's live view of a made-up set, in four stages that are each kept until their own inputs change."""
