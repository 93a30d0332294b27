"""ISO 9606-1:2012 with its corrigenda, taken over as EN ISO 9606-1:2017: fusion welding of steels."""
