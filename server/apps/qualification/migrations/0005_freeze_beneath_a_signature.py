"""Everything beneath a signed record is frozen by the database itself, whatever code asks for a change.

Plain triggers: unlike those of the library for triggers they cannot be switched off by a setting of the
connection.
"""

from django.db import migrations

FUNCTIONS = """
CREATE OR REPLACE FUNCTION evidence_signed(coupon bigint) RETURNS boolean
LANGUAGE sql STABLE SET search_path = public, pg_catalog AS $$
    SELECT EXISTS (SELECT 1 FROM qualification_qualificationrecord WHERE coupon_id = coupon)
$$;

CREATE OR REPLACE FUNCTION evidence_frozen() RETURNS trigger
LANGUAGE plpgsql SET search_path = public, pg_catalog AS $$
DECLARE
    rows jsonb[] := CASE TG_OP
        WHEN 'INSERT' THEN ARRAY[to_jsonb(NEW)]
        WHEN 'DELETE' THEN ARRAY[to_jsonb(OLD)]
        ELSE ARRAY[to_jsonb(OLD), to_jsonb(NEW)] END;
    one jsonb;
    coupon bigint;
BEGIN
    FOREACH one IN ARRAY rows LOOP
        coupon := CASE TG_ARGV[0]
            WHEN 'coupon' THEN (one ->> 'id')::bigint
            WHEN 'row' THEN (one ->> 'coupon_id')::bigint
            WHEN 'of-pass' THEN (SELECT coupon_id FROM coupons_passlog WHERE id = (one ->> 'row_id')::bigint)
            WHEN 'of-recording' THEN
                (SELECT coupon_id FROM recordings_recording WHERE id = (one ->> 'recording_id')::bigint)
        END;
        IF coupon IS NOT NULL AND evidence_signed(coupon) THEN
            RAISE EXCEPTION 'the record of coupon % is signed: % is frozen', coupon, TG_TABLE_NAME
                USING ERRCODE = 'check_violation';
        END IF;
    END LOOP;
    RETURN CASE WHEN TG_OP = 'DELETE' THEN OLD ELSE NEW END;
END $$;

CREATE OR REPLACE FUNCTION evidence_signature_fits() RETURNS trigger
LANGUAGE plpgsql SET search_path = public, pg_catalog AS $$
BEGIN
    IF NEW.record_id IS NULL THEN
        RETURN NEW;
    END IF;
    IF NEW.content_hash <> (SELECT content_hash FROM qualification_qualificationrecord WHERE id = NEW.record_id) THEN
        RAISE EXCEPTION 'a signature is over the hash of its record' USING ERRCODE = 'check_violation';
    END IF;
    IF NEW.purpose = 'witness' AND (
        EXISTS (SELECT 1 FROM qualification_qualificationrecord WHERE id = NEW.record_id AND signed_by_id = NEW.by_id)
        OR EXISTS (SELECT 1 FROM qualification_signature
                   WHERE record_id = NEW.record_id AND purpose IN ('void', 'superseded'))
    ) THEN
        RAISE EXCEPTION 'a witness is somebody else, of a record that counts' USING ERRCODE = 'check_violation';
    END IF;
    RETURN NEW;
END $$;
"""

TABLES = (
    ("coupons_coupon", "UPDATE OR DELETE", "coupon"),
    ("coupons_passlog", "INSERT OR UPDATE OR DELETE", "row"),
    ("coupons_passphoto", "INSERT OR UPDATE OR DELETE", "of-pass"),
    ("recordings_recording", "INSERT OR UPDATE OR DELETE", "row"),
    ("recordings_chunk", "INSERT OR UPDATE OR DELETE", "of-recording"),
    ("recordings_recordedpass", "INSERT OR UPDATE OR DELETE", "of-pass"),
    ("qualification_specimen", "INSERT OR UPDATE OR DELETE", "row"),
)
MAKE = FUNCTIONS + "".join(
    f"CREATE TRIGGER evidence_frozen BEFORE {verbs} ON {table} "
    f"FOR EACH ROW EXECUTE FUNCTION evidence_frozen('{how}');\n"
    for table, verbs, how in TABLES
) + (
    "CREATE TRIGGER evidence_signature_fits BEFORE INSERT ON qualification_signature "
    "FOR EACH ROW EXECUTE FUNCTION evidence_signature_fits();\n"
)
UNDO = "".join(f"DROP TRIGGER evidence_frozen ON {table};\n" for table, _, _ in TABLES) + (
    "DROP TRIGGER evidence_signature_fits ON qualification_signature;\n"
    "DROP FUNCTION evidence_frozen();\nDROP FUNCTION evidence_signature_fits();\n"
    "DROP FUNCTION evidence_signed(bigint);\n"
)


class Migration(migrations.Migration):
    dependencies = [
        ("qualification", "0004_names_of_signers"),
        ("coupons", "0008_fill_names"),
        ("recordings", "0002_received"),
    ]
    operations = [migrations.RunSQL(MAKE, UNDO)]
