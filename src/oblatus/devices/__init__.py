"""Devices beside the mat: the line protocol, the driver of devices that speak it, and the stand-ins that ship."""
