"""Kinds of metal that process, gas and filler go by."""

from __future__ import annotations

from typing import Literal

Kind = Literal["steel", "stainless", "aluminium", "copper", "nickel"]
KIND_OF_FAMILY: dict[str, Kind] = {
    "carbon": "steel",
    "weathering": "steel",
    "cr-mo": "steel",
    "ni-steel": "steel",
    "austenitic": "stainless",
    "ferritic": "stainless",
    "martensitic": "stainless",
    "ph-stainless": "stainless",
    "duplex": "stainless",
    "nickel": "nickel",
    "aluminium": "aluminium",
    "aluminium-cast": "aluminium",
    "copper": "copper",
}
