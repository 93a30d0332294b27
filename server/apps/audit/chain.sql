-- The trail as a chain. Made anew after every migration; see triggers.py.
-- 7120251128 is the lock of the chain's end: held from the first link of a commit until the commit is done.

CREATE OR REPLACE FUNCTION audit_part(whole jsonb, wanted text[]) RETURNS jsonb
LANGUAGE sql STABLE SET search_path = public, pg_catalog AS $$
    SELECT jsonb_object_agg(key, value) FROM jsonb_each(whole) WHERE key = ANY (wanted)
$$;

CREATE OR REPLACE FUNCTION audit_content(whole jsonb, wanted text[]) RETURNS text
LANGUAGE sql STABLE SET timezone = 'UTC' SET search_path = public, pg_catalog AS $$
    SELECT jsonb_build_object(
        'row', audit_part(whole, wanted),
        'request', (SELECT metadata FROM pghistory_context WHERE id = (whole ->> 'pgh_context_id')::uuid)
    )::text
$$;

CREATE OR REPLACE FUNCTION audit_sha256(content text) RETURNS text
LANGUAGE sql IMMUTABLE SET search_path = public, pg_catalog AS $$
    SELECT encode(sha256(convert_to(content, 'UTF8')), 'hex')
$$;

CREATE OR REPLACE FUNCTION audit_append(name text, ident text, wanted text[], digest text) RETURNS void
LANGUAGE plpgsql SET timezone = 'UTC' SET search_path = public, pg_catalog AS $$
DECLARE
    before text;
BEGIN
    PERFORM pg_advisory_xact_lock(7120251128);
    SELECT hash INTO before FROM audit_link ORDER BY id DESC LIMIT 1;
    before := coalesce(before, '');
    INSERT INTO audit_link (table_name, row_id, columns, row_hash, previous, hash, at)
    VALUES (name, ident, wanted, digest, before,
            audit_sha256(concat_ws('|', before, name, ident, digest)), clock_timestamp());
END $$;

CREATE OR REPLACE FUNCTION audit_link() RETURNS trigger
LANGUAGE plpgsql SECURITY DEFINER SET timezone = 'UTC' SET search_path = public, pg_catalog AS $$
DECLARE
    whole jsonb := to_jsonb(NEW);
    ident text := whole ->> TG_ARGV[0];
    wanted text[] := (SELECT array_agg(key ORDER BY key) FROM jsonb_object_keys(whole) AS key);
BEGIN
    PERFORM audit_append(TG_TABLE_NAME, ident, wanted, audit_sha256(audit_content(whole, wanted)));
    RETURN NULL;
END $$;

-- What stood in a table before the chain began.
CREATE OR REPLACE FUNCTION audit_begin(name text, key text) RETURNS void
LANGUAGE plpgsql SET timezone = 'UTC' SET search_path = public, pg_catalog AS $$
DECLARE
    one record;
    wanted text[];
BEGIN
    FOR one IN EXECUTE format('SELECT %1$I::text AS ident, to_jsonb(t) AS whole FROM %2$I t ORDER BY %1$I', key, name)
    LOOP
        wanted := (SELECT array_agg(column_name ORDER BY column_name)
                   FROM jsonb_object_keys(one.whole) AS column_name);
        PERFORM audit_append(name, one.ident, wanted, audit_sha256(audit_content(one.whole, wanted)));
    END LOOP;
END $$;

CREATE OR REPLACE FUNCTION audit_stays() RETURNS trigger
LANGUAGE plpgsql SET search_path = public, pg_catalog AS $$
BEGIN
    RAISE EXCEPTION 'a row of % is never changed or removed', TG_TABLE_NAME USING ERRCODE = 'check_violation';
END $$;

CREATE OR REPLACE FUNCTION audit_request_stays() RETURNS trigger
LANGUAGE plpgsql SET search_path = public, pg_catalog AS $$
BEGIN
    IF TG_OP = 'UPDATE' AND NEW.id = OLD.id AND NEW.metadata = OLD.metadata THEN
        RETURN NEW;
    END IF;
    RAISE EXCEPTION 'who did something is never changed or removed' USING ERRCODE = 'check_violation';
END $$;
