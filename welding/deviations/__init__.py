"""Deviations: where a coupon was welded otherwise than its procedure says."""
