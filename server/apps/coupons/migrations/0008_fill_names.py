"""Names of those who logged passes before names were kept; the trail notes it as any change."""

from django.db import migrations

FILL = """
UPDATE coupons_passlog SET logged_name = coalesce(nullif(trim(u.first_name || ' ' || u.last_name), ''), u.username)
FROM accounts_user u WHERE u.id = logged_by_id AND logged_name = '';
"""


class Migration(migrations.Migration):
    dependencies = [("coupons", "0007_names_and_corrections")]
    operations = [migrations.RunSQL(FILL, migrations.RunSQL.noop)]
