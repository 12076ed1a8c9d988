"""The flat board inside the warped one."""
