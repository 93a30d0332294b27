"""The roles of the database, and the SQL that makes them."""

from __future__ import annotations

ROLE, MIGRATES, SERVES = "bead", "bead_migrate", "bead_serve"
PASSWORDS = {ROLE: "database-password", MIGRATES: "migrate-password", SERVES: "serve-password"}
"""The owner of the cluster; the owner of a database, who migrates; and whoever answers people."""

ROLES = """
DO $$ BEGIN
    IF NOT EXISTS (SELECT FROM pg_roles WHERE rolname = '{role}') THEN CREATE ROLE {role}; END IF;
END $$;
ALTER ROLE {role} WITH LOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE NOREPLICATION NOBYPASSRLS
    PASSWORD '{password}';
"""
OWNED = """
ALTER DATABASE "{name}" OWNER TO {migrates};
REVOKE ALL ON DATABASE "{name}" FROM PUBLIC;
GRANT CONNECT ON DATABASE "{name}" TO {serves};
ALTER SCHEMA public OWNER TO {migrates};
REVOKE ALL ON SCHEMA public FROM PUBLIC;
GRANT USAGE ON SCHEMA public TO {serves};
DO $$
DECLARE one record;
BEGIN
    FOR one IN SELECT c.oid::regclass AS name, c.relkind FROM pg_class c
               WHERE c.relnamespace = 'public'::regnamespace AND c.relkind IN ('r', 'p', 'v', 'm', 'S')
               AND c.relowner <> '{migrates}'::regrole
               AND NOT EXISTS (SELECT FROM pg_depend d WHERE d.objid = c.oid AND d.deptype IN ('a', 'i')
                               AND c.relkind = 'S')
    LOOP
        EXECUTE format('ALTER TABLE %s OWNER TO {migrates}', one.name);
    END LOOP;
    FOR one IN SELECT p.oid::regprocedure AS name FROM pg_proc p
               WHERE p.pronamespace = 'public'::regnamespace AND p.proowner <> '{migrates}'::regrole
    LOOP
        EXECUTE format('ALTER ROUTINE %s OWNER TO {migrates}', one.name);
    END LOOP;
END $$;
"""
