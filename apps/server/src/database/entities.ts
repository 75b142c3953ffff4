import { Column, Entity, Index, PrimaryColumn, PrimaryGeneratedColumn } from 'typeorm';

@Entity('price_books')
export class PriceBookEntity {
  @PrimaryColumn('text')
  id: string;

  @Column('text')
  name: string;

  @Column('text')
  currency: string;
}

@Entity('price_items')
export class PriceItemEntity {
  @PrimaryColumn('text')
  bookId: string;

  @PrimaryColumn('text')
  id: string;

  @Column('integer')
  position: number;

  @Column('text')
  name: string;

  @Column('text')
  supplier: string;

  @Column('text')
  priceDate: string;

  /** The rest of the item as JSON: sizes, physics, stocks and pack. */
  @Column('text')
  data: string;
}

@Entity('projects')
export class ProjectEntity {
  @PrimaryColumn('text')
  id: string;

  @Column('text')
  name: string;

  @Column('text')
  kind: string;

  @Column('text')
  model: string;

  @Column('integer')
  revision: number;

  @Column('text')
  document: string;

  @Column('text')
  bookId: string;

  @Column('text')
  createdAt: string;

  @Column('text')
  updatedAt: string;

  /** When it was put into the bin; null while it is in use. */
  @Column('text', { nullable: true })
  deletedAt: string | null;

  /** When it was first found to have lain in the bin long enough; a clock that is wrong once throws nothing away. */
  @Column('text', { nullable: true })
  dueSince: string | null;
}

@Entity('operations')
@Index(['projectId', 'stepId'], { unique: true })
export class OperationEntity {
  @PrimaryGeneratedColumn()
  seq: number;

  @Column('text')
  projectId: string;

  /** The sender's id of the step: the same step sent twice is done once. */
  @Column('text')
  stepId: string;

  @Column('text')
  name: string;

  @Column('text')
  payload: string;

  @Column('text')
  patches: string;

  @Column('text')
  inverse: string;

  /** The revision it made; null for steps of a release that did not note it. */
  @Column('integer', { nullable: true })
  revision: number | null;

  /** done, undone, dropped (undone and then overtaken by another change), or step for an undo or redo itself. */
  @Column('text')
  state: string;

  @Column('text')
  at: string;
}

@Entity('versions')
export class VersionEntity {
  @PrimaryColumn('text')
  id: string;

  @Column('text')
  projectId: string;

  @Column('text')
  name: string;

  @Column('integer')
  automatic: boolean;

  @Column('integer')
  revision: number;

  @Column('text')
  document: string;

  @Column('text')
  at: string;
}

/** What happened to a project, line by line; nothing is taken out. */
@Entity('log')
export class LogEntity {
  @PrimaryColumn('text')
  id: string;

  @Column('text')
  projectId: string;

  @Column('text')
  at: string;

  @Column('text')
  kind: string;

  /** A message as JSON: it is put into words for whoever reads it. */
  @Column('text')
  said: string;
}

@Entity('photos')
export class PhotoEntity {
  @PrimaryColumn('text')
  id: string;

  @Column('text')
  projectId: string;

  @Column('integer')
  width: number;

  @Column('integer')
  height: number;

  @Column('blob')
  large: Buffer;

  @Column('blob')
  small: Buffer;

  @Column('text')
  at: string;
}
