import { type DynamicModule, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import type { DataSourceOptions } from 'typeorm';
import {
  LogEntity,
  OperationEntity,
  PhotoEntity,
  PriceBookEntity,
  PriceItemEntity,
  ProjectEntity,
  VersionEntity,
} from './entities.js';
import { LibsqlDatabase } from './libsql-driver.js';
import {
  FirstTables1764000000000,
  Log1764200000000,
  Photos1764100000000,
  Steps1764300000000,
  Due1764400000000,
  Identity1764500000000,
} from './migrations.js';
import { Transactions } from './transactions.js';

export const ENTITIES = [
  PriceBookEntity,
  PriceItemEntity,
  ProjectEntity,
  OperationEntity,
  VersionEntity,
  PhotoEntity,
  LogEntity,
];

/** Settings of the connection: WAL, foreign keys on (TypeORM's own default for this type), tables by migrations only. */
export function databaseOptions(path: string, driver: typeof LibsqlDatabase = LibsqlDatabase): DataSourceOptions {
  return {
    type: 'better-sqlite3',
    driver,
    database: path,
    enableWAL: true,
    entities: ENTITIES,
    migrations: [
      FirstTables1764000000000,
      Photos1764100000000,
      Log1764200000000,
      Steps1764300000000,
      Due1764400000000,
      Identity1764500000000,
    ],
    migrationsRun: true,
    synchronize: false,
    prepareDatabase: (database: LibsqlDatabase) => {
      // an acknowledged change must outlive the power as well as the process
      database.pragma('synchronous = FULL');
    },
  };
}

@Module({})
export class DatabaseModule {
  static at(path: string, driver?: typeof LibsqlDatabase): DynamicModule {
    return {
      module: DatabaseModule,
      global: true,
      imports: [TypeOrmModule.forRoot({ ...databaseOptions(path, driver), retryAttempts: 0 })],
      providers: [Transactions],
      exports: [Transactions],
    };
  }
}
