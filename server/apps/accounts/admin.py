"""People in the admin pages."""

from django.contrib import admin
from django.contrib.auth.admin import UserAdmin

from apps.accounts.models import User


@admin.register(User)
class PersonAdmin(UserAdmin):  # type: ignore[type-arg]
    """The usual pages for users, with the role."""

    fieldsets = (*(UserAdmin.fieldsets or ()), ("Role", {"fields": ("role",)}))
    list_display = ("username", "first_name", "last_name", "role", "is_active")
