import pg from 'pg';

/** Where ./jinx test has PostgreSQL; tests that need a server of their own are left out without it. */
export const CLUSTER_URL = process.env['JINX_TEST_DATABASE_URL'];

/** Makes a database of a name anew, in the cluster of ./jinx test. Returns its address. */
export async function freshDatabase(name: string): Promise<string> {
  const admin = new pg.Client({ connectionString: CLUSTER_URL });
  await admin.connect();
  await admin.query(`drop database if exists ${name} with (force)`);
  await admin.query(`create database ${name}`);
  await admin.end();
  return CLUSTER_URL!.replace(/\/\w+$/, `/${name}`);
}
