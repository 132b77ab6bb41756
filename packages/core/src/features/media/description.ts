import * as z from 'zod';

/*
 * What two browsers tell one another before they send sound and pictures straight. The server reads none of it but to see
 * that it is what it says it is: it goes into the other's browser, whose reader is older and larger than ours.
 */

/** Characters in a description at most: one voice, a camera and a shown screen with its sound take some 15,000. */
export const MAX_DESCRIPTION = 24_000;
/** Streams that one description may be of. */
export const MAX_STREAMS = 8;

/** A line of RFC 8866, section 9: `type=value`. */
const LINE = /^[a-z]=[^\0\r\n]*$/;
const STREAM = /^m=(audio|video|application) \d{1,5}(\/\d{1,5})? [!-~]{1,64}( [!-~]{1,32}){1,128}$/;
/** Its directions, as in RFC 8866, section 6.7. */
const DIRECTION = /^a=(sendrecv|sendonly|recvonly|inactive)$/;

/** Whether that is a session description as browsers make them (RFC 8866, RFC 8829). */
export function isSessionDescription(sdp: string): boolean {
  if (sdp.length > MAX_DESCRIPTION || !sdp.startsWith('v=0\r\no=') || !sdp.endsWith('\r\n'))
    return false;
  const lines = sdp.slice(0, -2).split('\r\n');
  if (!lines.every((line) => LINE.test(line))) return false;
  const streams = lines.filter((line) => line.startsWith('m='));
  return streams.length <= MAX_STREAMS && streams.every((line) => STREAM.test(line));
}

/**
 * Whether who describes themselves like that sends neither sound nor picture. A stream whose direction isn't said goes both
 * ways, and one that is said for all holds where nothing else is (RFC 8866, section 6.7).
 */
export function sendsNothing(sdp: string): boolean {
  const [session = '', ...streams] = sdp.split(/\r\n(?=m=)/);
  const said = (part: string): string | undefined =>
    part
      .split('\r\n')
      .map((line) => DIRECTION.exec(line)?.[1])
      .find((direction) => direction !== undefined);
  const forAll = said(session);
  return streams.every((stream) =>
    // What only carries data has no direction, and nothing of ours is carried like that.
    /^m=application /.test(stream)
      ? false
      : ['recvonly', 'inactive'].includes(said(stream) ?? forAll ?? 'sendrecv'),
  );
}

/** An offer or an answer (RFC 8829); `rollback` and what is provisional is no other window's matter. */
export const SessionDescription = z.strictObject({
  type: z.enum(['offer', 'answer']),
  sdp: z.string().max(MAX_DESCRIPTION).refine(isSessionDescription),
});
export type SessionDescription = z.infer<typeof SessionDescription>;

/**
 * `candidate-attribute` of RFC 8839, section 5.1, with what browsers add at its end. Nothing at all says that there are no
 * more of that kind (RFC 8838, section 13).
 */
const CANDIDATE =
  /^(candidate:[A-Za-z0-9+/]{1,32} \d{1,3} [A-Za-z]{1,10} \d{1,10} [0-9A-Za-z.:-]{1,255} \d{1,5} typ (host|srflx|prflx|relay)( [!-~]{1,256}){0,24})?$/;

/** A way on which a window may be reached: an address and a port of its machine, or of a server that passes on. */
export const IceCandidate = z.strictObject({
  candidate: z.string().max(500).regex(CANDIDATE),
  sdpMid: z.string().max(32).nullable(),
  sdpMLineIndex: z
    .number()
    .int()
    .min(0)
    .max(MAX_STREAMS - 1)
    .nullable(),
  /** 4 to 256 characters (RFC 8839, section 5.4). */
  usernameFragment: z
    .string()
    .regex(/^[A-Za-z0-9+/]{4,256}$/)
    .nullable(),
});
export type IceCandidate = z.infer<typeof IceCandidate>;
