import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto';

/** Cost N of scrypt (RFC 7914), with r = 8: about a tenth of a second and 32 MB here. */
export const PASSWORD_COST = 2 ** 15;
const R = 8;
const P = 1;
const BYTES = 32;

function derive(password: string, salt: Buffer, n: number, r: number, p: number): Promise<Buffer> {
  const options = { N: n, r, p, maxmem: 256 * n * r };
  return new Promise((resolve, reject) =>
    scrypt(password.normalize('NFKC'), salt, BYTES, options, (error, key) =>
      error ? reject(error) : resolve(key),
    ),
  );
}

/** Keeps passwords so that nobody can read them, and checks them. */
export class Passwords {
  /** The hash of nobody's password. */
  private nobody: Promise<string> | undefined;

  /** @param cost N of scrypt, a power of two, for those that are kept from now on */
  constructor(private readonly cost = PASSWORD_COST) {}

  /** `scrypt$N$r$p$salt$key`, so that the cost can be raised later without locking anyone out. */
  async hash(password: string): Promise<string> {
    const salt = randomBytes(16);
    const key = await derive(password, salt, this.cost, R, P);
    return ['scrypt', this.cost, R, P, salt.toString('base64'), key.toString('base64')].join('$');
  }

  /**
   * Whether the password belongs to the hash. Without a hash (no such account) it takes just as long
   * and says no, so that nobody learns which e-mails have accounts.
   */
  async check(password: string, hash: string | undefined): Promise<boolean> {
    this.nobody ??= this.hash(randomBytes(16).toString('hex'));
    const [, n, r, p, salt, key] = (hash ?? (await this.nobody)).split('$') as [
      string,
      string,
      string,
      string,
      string,
      string,
    ];
    const derived = await derive(password, Buffer.from(salt, 'base64'), +n, +r, +p);
    return timingSafeEqual(derived, Buffer.from(key, 'base64')) && hash !== undefined;
  }
}
