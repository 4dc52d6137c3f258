import { readFileSync } from 'node:fs';
import { openPglite } from '../platform/db/pglite-database';
import type { Database, SqlValue } from '../platform/db/database';

// Booting PGlite takes two seconds of processor time, emptying its tables a few hundredths: one that a test is done
// with is brought back to the migrated state and handed to the next.

/** Every row of the migrated state, beside the tables. */
const KEEP = `
  CREATE SCHEMA image;
  DO $$ DECLARE t text; BEGIN
    FOR t IN SELECT tablename FROM pg_tables WHERE schemaname = 'public' LOOP
      EXECUTE format('CREATE TABLE image.%I AS TABLE public.%I', t, t);
    END LOOP;
  END $$;
  CREATE TABLE image."sequence positions" AS
    SELECT sequencename AS name, last_value AS at FROM pg_sequences WHERE schemaname = 'public';`;

/** Foreign keys and triggers rest meanwhile: what comes back is consistent as a whole. */
const RESTORE = `
  SET session_replication_role = replica;
  DO $$ DECLARE t text; s record; any_row bool; BEGIN
    FOR t IN SELECT tablename FROM pg_tables WHERE schemaname = 'public' LOOP
      EXECUTE format('DELETE FROM public.%I', t);
      EXECUTE format('INSERT INTO public.%I OVERRIDING SYSTEM VALUE SELECT * FROM image.%I', t, t);
    END LOOP;
    FOR s IN SELECT name, at FROM image."sequence positions" LOOP
      PERFORM setval(format('public.%I', s.name)::regclass, coalesce(s.at, 1), s.at IS NOT NULL);
    END LOOP;
  END $$;
  SET session_replication_role = origin;`;

/** What the tables are, in one text: a test that changed it spoils its database for others. */
const SHAPE = `
  SELECT md5(
    coalesce((SELECT string_agg(format('%s.%s %s', a.attrelid::regclass, a.attname, a.atttypid), ',' ORDER BY a.attrelid, a.attnum)
      FROM pg_attribute a JOIN pg_class c ON c.oid = a.attrelid
      WHERE c.relnamespace = 'public'::regnamespace AND c.relkind IN ('r', 'v') AND NOT a.attisdropped), '')
    || coalesce((SELECT string_agg(conname, ',' ORDER BY oid) FROM pg_constraint), '')
    || coalesce((SELECT string_agg(tgname, ',' ORDER BY oid) FROM pg_trigger), '')) AS shape`;

interface Clone {
  readonly database: Database;
  readonly shape: string;
}

const idle: Clone[] = [];

async function shapeOf(database: Database): Promise<string> {
  const [{ shape }] = await database.query<{ shape: string }>(SHAPE);
  return shape;
}

async function anotherClone(dump: string): Promise<Clone> {
  const database = await openPglite({ dump: new Blob([readFileSync(dump)]) });
  await database.script(KEEP);
  return { database, shape: await shapeOf(database) };
}

async function giveBack(clone: Clone): Promise<void> {
  if ((await shapeOf(clone.database)) !== clone.shape) return clone.database.close();
  await clone.database.script(RESTORE);
  idle.push(clone);
}

/**
 * A database in its migrated state; closing it hands it back.
 *
 * @param dump - file with the migrated state, see global-setup
 */
export async function databaseClone(dump: string): Promise<Database> {
  const clone = idle.pop() ?? (await anotherClone(dump));
  let isClosed = false;
  const { database } = clone;
  const open = (): Database => {
    if (isClosed) throw new Error('this test has closed its database');
    return database;
  };
  return {
    query: async <Row>(sql: string, values?: readonly SqlValue[]) => open().query<Row>(sql, values),
    transaction: async (work) => open().transaction(work),
    script: async (sql) => open().script(sql),
    close: async () => {
      if (isClosed) return;
      isClosed = true;
      await giveBack(clone);
    },
  };
}
