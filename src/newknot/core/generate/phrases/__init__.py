"""Words and sentences: texts put together part by part, counted within a policy and drawn."""
