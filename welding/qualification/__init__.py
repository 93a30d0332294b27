"""What a coupon proves: facts as welded, ranges of qualification, what they cover."""
