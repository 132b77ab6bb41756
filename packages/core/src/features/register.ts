import * as z from 'zod';
import { Id } from '../id/index.js';
import type { Role } from '../permissions/index.js';
import { board } from './board/index.js';
import { captions } from './captions/index.js';
import { connection } from './connection/index.js';
import { door } from './door/index.js';
import { doorstep } from './doorstep/index.js';
import type { ClientKind, LiveFeatureSpec } from './feature.js';
import { inStep } from './in-step/index.js';
import { ink } from './ink/index.js';
import { invalidation } from './invalidation/index.js';
import type { ReadLimits } from './limits.js';
import { lessonBoards } from './lesson-boards/index.js';
import { media } from './media/index.js';
import { pens } from './pens/index.js';
import { pointing } from './pointing/index.js';
import { presence } from './presence/index.js';
import { talk } from './talk/index.js';

/** Every live feature, by its name. What travels between windows and the server is derived from here. */
const FEATURES = {
  ...{ connection, board, ink, pens, inStep, pointing, presence, talk, door },
  ...{ captions, doorstep, invalidation, lessonBoards, media },
} as const;

type Features = typeof FEATURES;
export type FeatureName = keyof Features;

/** What stands in a message that goes to one window. */
const TO_WINDOW = { to: Id };

type MessageOf<Kind extends string, Fields extends z.ZodRawShape> = z.infer<
  z.ZodObject<{ kind: z.ZodLiteral<Kind> } & Fields, z.core.$strict>
>;

/** What a window sends of a feature. */
export type ClientMessageOf<Name extends FeatureName> = {
  [
    Kind in keyof Features[Name]['clientMessages'] & string
  ]: Features[Name]['clientMessages'][Kind] extends {
    readonly fields: infer Fields extends z.ZodRawShape;
  }
    ? MessageOf<
        Kind,
        Features[Name]['clientMessages'][Kind] extends { readonly to: 'window' }
          ? Fields & typeof TO_WINDOW
          : Fields
      >
    : never;
}[keyof Features[Name]['clientMessages'] & string];

/** Kinds of messages that a window sends of a feature. */
export type ClientKindOf<Name extends FeatureName> = keyof Features[Name]['clientMessages'] &
  string;

/** Those of them that go to one window. */
export type AddressedKindOf<Name extends FeatureName> = {
  [Kind in ClientKindOf<Name>]: Features[Name]['clientMessages'][Kind] extends {
    readonly to: 'window';
  }
    ? Kind
    : never;
}[ClientKindOf<Name>];

/** What the server sends of a feature. */
export type ServerMessageOf<Name extends FeatureName> = {
  [
    Kind in keyof Features[Name]['serverMessages'] & string
  ]: Features[Name]['serverMessages'][Kind] extends infer Fields extends z.ZodRawShape
    ? MessageOf<Kind, Fields>
    : never;
}[keyof Features[Name]['serverMessages'] & string];

/** What a browser sends. */
export type ClientMessage = { [Name in FeatureName]: ClientMessageOf<Name> }[FeatureName];
/** What the server sends. */
export type ServerMessage = { [Name in FeatureName]: ServerMessageOf<Name> }[FeatureName];

const all: readonly LiveFeatureSpec[] = Object.values(FEATURES);
const client = new Map<string, ClientKind>(
  all.flatMap(({ clientMessages }) => Object.entries(clientMessages)),
);

/** The schema of each kind of message that a window sends. */
export const CLIENT_SCHEMAS: readonly z.ZodObject[] = [...client].map(([kind, { to, fields }]) =>
  z.strictObject({ kind: z.literal(kind), ...(to ? TO_WINDOW : {}), ...fields }),
);

const SERVER_SCHEMAS = all.flatMap(({ serverMessages }) =>
  Object.entries(serverMessages).map(([kind, fields]) =>
    z.strictObject({ kind: z.literal(kind), ...fields }),
  ),
);

export const ClientMessage = z.discriminatedUnion(
  'kind',
  CLIENT_SCHEMAS as never,
) as unknown as z.ZodType<ClientMessage>;
export const ServerMessage = z.discriminatedUnion(
  'kind',
  SERVER_SCHEMAS as never,
) as unknown as z.ZodType<ServerMessage>;

/** Who may send a message of this kind. */
export function senderOf(kind: ClientMessage['kind']): ClientKind['from'] {
  return client.get(kind)!.from;
}

/** Whether windows send messages of this kind without anybody's doing. */
export function isByItself(kind: ClientMessage['kind']): boolean {
  return client.get(kind)!.byItself ?? false;
}

/** Whether messages of this kind go to one window. */
export function isAddressed(kind: ClientMessage['kind']): boolean {
  return client.get(kind)!.to === 'window';
}

/** What a message of this kind may cost; `null` for a kind that there isn't. */
export function limitsOf(kind: string, role: Role): ReadLimits | null {
  const limits = client.get(kind)?.limits;
  if (!limits) return null;
  return 'bytes' in limits ? limits : limits[role];
}

type RecordParts = {
  [Name in FeatureName]: Features[Name]['record'] extends infer Parts extends z.ZodRawShape
    ? z.infer<z.ZodObject<Parts>>
    : Record<never, never>;
};

/** What a feature leaves in a record. */
export type RecordPart<Name extends FeatureName> = RecordParts[Name];

/** Features that leave something when a lesson is over. */
export type KeptName = {
  [Name in FeatureName]: keyof RecordPart<Name> extends never ? never : Name;
}[FeatureName];

type Joined<Parts> = (Parts extends unknown ? (part: Parts) => void : never) extends (
  part: infer All,
) => void
  ? { [Name in keyof All]: All[Name] }
  : never;

/** What happened beside the pages of a lesson, by what it is; times in ms since 1970. */
export type RecordTimeline = Joined<RecordParts[FeatureName]>;
export const RecordTimeline = z.object(
  Object.assign({}, ...all.map(({ record }) => record ?? {})) as z.ZodRawShape,
) as unknown as z.ZodType<RecordTimeline>;

/** Of a lesson beside whose pages nothing happened. */
export const NOTHING_BESIDE = Object.freeze(
  Object.fromEntries(
    all.flatMap(({ record }) => Object.keys(record ?? {})).map((part) => [part, Object.freeze([])]),
  ),
) as unknown as RecordTimeline;

/** Where somebody's words are in what a feature leaves. */
export type SaidSourceOf<Name extends FeatureName> = Features[Name]['said'][number];

/** Where somebody's words are in a record, besides its pages and notes. */
export type SaidSource = SaidSourceOf<FeatureName>;
export const SAID_SOURCES = all.flatMap(({ said }) => said) as readonly SaidSource[];
