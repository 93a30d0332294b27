"""Names of those who signed before names were kept with the signature: as they are called today."""

from django.db import migrations, models

FILL = """
ALTER TABLE qualification_signature DISABLE TRIGGER USER;
UPDATE qualification_signature SET name = coalesce(nullif(trim(u.first_name || ' ' || u.last_name), ''), u.username)
FROM accounts_user u WHERE u.id = by_id AND name = '';
ALTER TABLE qualification_signature ENABLE TRIGGER USER;
"""


class Migration(migrations.Migration):
    dependencies = [("qualification", "0003_amendments_and_names")]
    operations = [
        migrations.RunSQL(FILL, migrations.RunSQL.noop),
        migrations.AddConstraint(
            model_name="signature",
            constraint=models.CheckConstraint(
                condition=models.Q(("name", ""), _negated=True), name="signature_named"
            ),
        ),
    ]
