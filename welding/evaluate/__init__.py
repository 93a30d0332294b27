"""A procedure, a coupon and a pass under evaluation: findings, heat input, temperatures, what is missing."""
