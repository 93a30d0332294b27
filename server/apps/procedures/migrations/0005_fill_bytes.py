"""The bytes of revisions of before bytes were kept, where they are still those that the hash is over."""

import hashlib

from django.db import migrations

from welding.documents.codec import PROCEDURE
from welding.errors import DocumentError


def fill(apps, schema_editor):
    revision = apps.get_model("procedures", "Revision")
    rows = list(revision.objects.filter(body="").values_list("pk", "document", "content_hash"))
    if not rows:
        return
    schema_editor.execute("ALTER TABLE procedures_revision DISABLE TRIGGER USER")
    for pk, document, digest in rows:
        try:
            body = PROCEDURE.write(PROCEDURE.take(document))
        except DocumentError:
            continue
        if hashlib.sha256(body).hexdigest() == digest:
            revision.objects.filter(pk=pk).update(body=body.decode())
    schema_editor.execute("ALTER TABLE procedures_revision ENABLE TRIGGER USER")


class Migration(migrations.Migration):
    dependencies = [("procedures", "0004_bytes_of_a_revision")]
    operations = [migrations.RunPython(fill, migrations.RunPython.noop)]
