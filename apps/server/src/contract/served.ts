import type { Route, Who } from '@cuaderno/contract/route';

declare module 'fastify' {
  interface FastifyContextConfig {
    /** Who may ask; domains that know such people let no others through. */
    who?: Who;
  }
}

/** The same, in Fastify's words. */
type Schema<Spec extends Route> = {
  [
    Name in keyof Spec as Name extends 'params' | 'body'
      ? Name
      : Name extends 'query'
        ? 'querystring'
        : Name extends 'answers'
          ? Spec['answers'] extends 'bytes'
            ? never
            : 'response'
          : never
  ]: Spec[Name];
} & { readonly tags: string[]; readonly summary: string };

/** A route of the contract, as options for `app.route`: all but what is done. */
export function served<const Spec extends Route>(
  spec: Spec,
): {
  method: Spec['method'];
  url: string;
  config: { who: Who };
  schema: Schema<Spec>;
} {
  const { method, path, who, tag, summary, consumes, params, query, body, answers } = spec;
  const schema = {
    ...{ tags: [tag], summary },
    ...(consumes && { consumes: [...consumes] }),
    ...(params && { params }),
    ...(query && { querystring: query }),
    ...(body && { body }),
    ...(answers !== 'bytes' && { response: answers }),
  };
  return { method, url: path, config: { who }, schema: schema as unknown as Schema<Spec> };
}
