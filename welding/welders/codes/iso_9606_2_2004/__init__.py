"""ISO 9606-2:2004: fusion welding of aluminium and its alloys."""
