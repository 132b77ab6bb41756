import { normalizeIP } from '@fastify/rate-limit';

/** Bits of an IPv6 address that say in which network it is; whoever is in one has all addresses of it (RFC 4291, 2.5.1). */
const NETWORK_BITS = 64;

/**
 * By what those who ask are told apart where it is counted how often they do: an IPv4 address, or the network of an IPv6
 * one. A request whose connection is gone by now has none, and nobody waits for its answer.
 */
export function networkOf({ ip }: { readonly ip: string | undefined }): string {
  return ip ? normalizeIP(ip, NETWORK_BITS) : 'gone';
}
