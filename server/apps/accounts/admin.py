"""People in the admin pages."""

from typing import Any

from django.contrib import admin
from django.contrib.auth.admin import UserAdmin
from django.contrib.auth.forms import PasswordChangeForm
from django.db.models import QuerySet
from django.http import HttpRequest

from apps.accounts.models import User
from apps.accounts.services.sign_in import unlock


class OwnPasswordForm(PasswordChangeForm):
    """The person who signs in under /admin/ changes the own password."""

    def save(self, commit: bool = True) -> Any:
        """Keep it as one that the person chose."""
        self.user.set_own_password(self.cleaned_data["new_password1"])
        if commit:
            self.user.save()
        return self.user


admin.site.password_change_form = OwnPasswordForm


@admin.register(User)
class PersonAdmin(UserAdmin):  # type: ignore[type-arg]
    """The usual pages for users, with the role."""

    fieldsets = (
        *(UserAdmin.fieldsets or ()),
        ("Role", {"fields": ("role", "password_own", "password_set_at")}),
    )
    list_display = ("username", "first_name", "last_name", "role", "is_active", "password_own")
    readonly_fields = ("password_own", "password_set_at")
    actions = ("let_in",)

    @admin.action(description="Unlock sign-in after too many failures")
    def let_in(self, request: HttpRequest, queryset: QuerySet[User]) -> None:
        """Begin the budgets of the chosen names anew."""
        for one in queryset:
            unlock(one.username)
        self.message_user(request, "They can sign in again.")
