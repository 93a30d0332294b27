"""Tables of the throttling of before, which held names and addresses."""

from django.db import migrations

DROP = """
DROP TABLE IF EXISTS axes_accessattemptexpiration, axes_accessattempt, axes_accessfailurelog, axes_accesslog;
DELETE FROM django_migrations WHERE app = 'axes';
"""


class Migration(migrations.Migration):
    dependencies = [("accounts", "0003_own_passwords_and_budgets")]
    operations = [migrations.RunSQL(DROP, migrations.RunSQL.noop)]
