"""Every state of the interface, walked at every width in both schemes."""
