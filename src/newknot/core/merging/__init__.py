"""Two copies of a vault become one."""
