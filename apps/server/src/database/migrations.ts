import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The first tables. Later changes are migrations of their own; this one is never edited. */
export class FirstTables1764000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE "price_books" ("id" text PRIMARY KEY NOT NULL, "name" text NOT NULL, "currency" text NOT NULL)`,
    );
    await runner.query(
      `CREATE TABLE "price_items" ("bookId" text NOT NULL REFERENCES "price_books"("id") ON DELETE CASCADE, "id" text NOT NULL, "position" integer NOT NULL, "name" text NOT NULL, "supplier" text NOT NULL, "priceDate" text NOT NULL, "data" text NOT NULL CHECK (json_valid("data")), PRIMARY KEY ("bookId", "id"))`,
    );
    await runner.query(
      `CREATE TABLE "projects" ("id" text PRIMARY KEY NOT NULL, "name" text NOT NULL, "kind" text NOT NULL, "model" text NOT NULL, "revision" integer NOT NULL, "document" text NOT NULL CHECK (json_valid("document")), "bookId" text NOT NULL REFERENCES "price_books"("id"), "createdAt" text NOT NULL, "updatedAt" text NOT NULL)`,
    );
    await runner.query(
      `CREATE TABLE "operations" ("seq" integer PRIMARY KEY AUTOINCREMENT NOT NULL, "projectId" text NOT NULL REFERENCES "projects"("id") ON DELETE CASCADE, "stepId" text NOT NULL, "name" text NOT NULL, "payload" text NOT NULL, "patches" text NOT NULL, "inverse" text NOT NULL, "state" text NOT NULL CHECK ("state" IN ('done', 'undone', 'dropped', 'step')), "at" text NOT NULL)`,
    );
    await runner.query(`CREATE UNIQUE INDEX "operations_step" ON "operations" ("projectId", "stepId")`);
    await runner.query(`CREATE INDEX "operations_state" ON "operations" ("projectId", "state", "seq")`);
    await runner.query(
      `CREATE TABLE "versions" ("id" text PRIMARY KEY NOT NULL, "projectId" text NOT NULL REFERENCES "projects"("id") ON DELETE CASCADE, "name" text NOT NULL, "automatic" integer NOT NULL, "revision" integer NOT NULL, "document" text NOT NULL, "at" text NOT NULL)`,
    );
    await runner.query(`CREATE INDEX "versions_project" ON "versions" ("projectId", "at")`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['versions', 'operations', 'projects', 'price_items', 'price_books'])
      await runner.query(`DROP TABLE "${table}"`);
  }
}

/** Photos that belong to a project. */
export class Photos1764100000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE "photos" ("id" text PRIMARY KEY NOT NULL, "projectId" text NOT NULL REFERENCES "projects"("id") ON DELETE CASCADE, "width" integer NOT NULL, "height" integer NOT NULL, "large" blob NOT NULL, "small" blob NOT NULL, "at" text NOT NULL)`,
    );
    await runner.query(`CREATE INDEX "photos_project" ON "photos" ("projectId", "at")`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "photos"`);
  }
}

/** The log of a project has a table of its own. */
export class Log1764200000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE "log" ("id" text PRIMARY KEY NOT NULL, "projectId" text NOT NULL REFERENCES "projects"("id") ON DELETE CASCADE, "at" text NOT NULL, "kind" text NOT NULL CHECK ("kind" IN ('note')), "said" text NOT NULL CHECK (json_valid("said")))`,
    );
    await runner.query(`CREATE INDEX "log_project" ON "log" ("projectId", "at")`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "log"`);
  }
}

/** A step knows the revision it made, so that what was sent twice is known again; a project is put into the bin before it is gone. */
export class Steps1764300000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "operations" ADD COLUMN "revision" integer`);
    await runner.query(`CREATE INDEX "operations_revision" ON "operations" ("projectId", "revision")`);
    await runner.query(`ALTER TABLE "projects" ADD COLUMN "deletedAt" text`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP INDEX "operations_revision"`);
    await runner.query(`ALTER TABLE "operations" DROP COLUMN "revision"`);
    await runner.query(`ALTER TABLE "projects" DROP COLUMN "deletedAt"`);
  }
}

/** A database is told from another: work for one goes into no other that has a project of the same id. */
export class Identity1764500000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE "identity" ("id" text PRIMARY KEY NOT NULL)`);
    await runner.query(`INSERT INTO "identity" SELECT lower(hex(randomblob(16)))`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "identity"`);
  }
}

/** What has lain in the bin long enough is gone when it was found so twice. */
export class Due1764400000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "projects" ADD COLUMN "dueSince" text`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "projects" DROP COLUMN "dueSince"`);
  }
}
