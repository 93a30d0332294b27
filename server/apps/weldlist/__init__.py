"""The weld list of a job: its joints, what covers them, and the coupons that the rest needs."""
