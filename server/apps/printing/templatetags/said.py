"""``{% say "No pass is planned yet." %}`` in a template of a sheet."""

from django import template

from apps.printing.said import say

register = template.Library()
register.simple_tag(say, name="say")
