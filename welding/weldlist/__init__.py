"""The joints of a job: their types, what covers them, and the cheapest coupons that prove the rest."""
