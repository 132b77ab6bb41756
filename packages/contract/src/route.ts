import type * as z from 'zod';

/**
 * Who may ask. `tutor`: anyone who is signed in. `student`: who was let in to a lesson that is open. `helper`: who
 * was let in to help. `teacher`: a tutor, or one who helps in a lesson of the course that the path names, by itself or by a
 * board of it. `arrival`: who
 * knocked at its door. `device`: a student's browser, known by its own cookie. `link`: anyone who holds the link that is
 * part of the path. `reader`: a tutor or a student, whom the route asks about what they read. `anyone`: nothing is
 * asked.
 */
export type Who =
  'tutor' | 'teacher' | 'student' | 'helper' | 'arrival' | 'device' | 'link' | 'reader' | 'anyone';

type Method = 'GET' | 'POST';

/** What is answered, by its status; `bytes` for what is no JSON. */
export type Answers = { readonly [Status in number]?: z.ZodType } | 'bytes';

/** One request that can be made of the server, said once for both ends. */
export interface Route {
  readonly method: Method;
  /** Below `/api`; `:name` stands for one of `params`. */
  readonly path: `/${string}`;
  readonly who: Who;
  /** The heading under which the description of all routes has it. */
  readonly tag: string;
  readonly summary: string;
  /** Types of bodies that are no JSON. */
  readonly consumes?: readonly string[];
  readonly params?: z.ZodObject;
  readonly query?: z.ZodObject;
  readonly body?: z.ZodType;
  readonly answers: Answers;
}

type ParamNames<Path extends string> = Path extends `${string}:${infer Name}/${infer Rest}`
  ? Name | ParamNames<`/${Rest}`>
  : Path extends `${string}:${infer Name}`
    ? Name extends `${infer Bare}.${string}`
      ? Bare
      : Name
    : never;

/** Every name in the path is said, and none besides. */
type SaysParams<Spec extends Route> = [ParamNames<Spec['path']>] extends [never]
  ? { readonly params?: undefined }
  : { readonly params: z.ZodObject<Record<ParamNames<Spec['path']>, z.ZodType>> };

/**
 * Says what a request is.
 *
 * @__NO_SIDE_EFFECTS__
 */
export function route<const Spec extends Route>(spec: Spec & SaysParams<Spec>): Spec {
  return spec;
}

/** Nobody who is asked changes what is said. */
type Sendable<Value> = Value extends Blob
  ? Value
  : Value extends object
    ? { readonly [Name in keyof Value]: Sendable<Value[Name]> }
    : Value;

type Input<Part> = Part extends z.ZodType ? Sendable<z.input<Part>> : undefined;

/** What has to be said is said, what may be left out may be left out, and what there isn't is nothing. */
type Given<Parts> = {
  [
    Name in keyof Parts as Parts[Name] extends undefined
      ? never
      : Record<never, never> extends Parts[Name]
        ? never
        : Name
  ]: Parts[Name];
} & {
  [
    Name in keyof Parts as Parts[Name] extends undefined
      ? never
      : Record<never, never> extends Parts[Name]
        ? Name
        : never
  ]?: Parts[Name];
};

/** What has to be said to ask for it: `params`, `query` and `body`, those that it has. */
export type Asked<Spec extends Route> = Given<{
  params: 'params' extends keyof Spec ? Input<Spec['params']> : undefined;
  query: 'query' extends keyof Spec ? Input<Spec['query']> : undefined;
  body: 'body' extends keyof Spec
    ? Input<Spec['body']>
    : 'consumes' extends keyof Spec
      ? Blob
      : undefined;
}>;

/** What is answered where all goes well. */
export type Answer<Spec extends Route> = Spec['answers'] extends 'bytes'
  ? Uint8Array<ArrayBuffer>
  : {
      [Status in keyof Spec['answers']]: Spec['answers'][Status] extends infer Schema extends
        z.ZodType
        ? z.output<Schema>
        : never;
    }[keyof Spec['answers']];

/** The path below `/api` with these values in it, and what is asked with it. */
export function addressOf(
  { path }: Pick<Route, 'path'>,
  params: Readonly<Record<string, unknown>> = {},
  query: Readonly<Record<string, unknown>> = {},
): string {
  const said = Object.entries(query).filter(([, value]) => value !== undefined);
  const list = new URLSearchParams(said.map(([name, value]) => [name, String(value)])).toString();
  const filled = path.replace(/:(\w+)/g, (_all, name: string) =>
    encodeURIComponent(String(params[name])),
  );
  return list ? `${filled}?${list}` : filled;
}
