"""The made-up world of Ilse Quist, who lights stages: a vault built through the use cases."""
