"""Tests of a coupon: the plan, the verdict on each specimen, retests, the cutting drawing."""
