import fp from 'fastify-plugin';

declare module 'fastify' {
  interface FastifyInstance {
    passwordLetters: PasswordLetters;
  }
}

export interface PasswordLetters {
  /** Sends a letter to anyone who has this e-mail; nobody waits for it, and nobody learns whether there was one. */
  send(email: string): void;
}

/**
 * Letters to tutors who forgot their password.
 * @param address where this server is found, as `https://…`. The person who asks has no say in it: a letter would lead to
 * wherever they like. Where it isn't known, the letter has a code instead of a link.
 */
export const passwordLetters = fp(
  (app, { address }: { address: string | null }, done) => {
    const write = async (email: string): Promise<void> => {
      const asked = await app.accounts.askReset(email);
      if (!asked) return;
      const { token, tutor } = asked;
      const way = address
        ? `Open this link to choose a new one:\n\n${address}/reset/${token}`
        : `Choose “Forgot your password?” where you sign in, then “I have a code”, and enter:\n\n${token}`;
      await app.mailbox.send(tutor.id, {
        to: tutor.email,
        subject: 'Your password for Cuaderno',
        body: [
          `Hello ${tutor.name},`,
          'somebody, you I hope, asked for a new password.',
          way,
          'It is good once, for an hour. If it wasn’t you, there is nothing to do: your password is as it was.',
        ].join('\n\n'),
      });
    };
    app.decorate('passwordLetters', {
      send(email: string) {
        write(email).catch((error: unknown) =>
          app.log.error({ err: error }, 'a letter about a password was not sent'),
        );
      },
    });
    done();
  },
  { name: 'password-letters', dependencies: ['accounts', 'mailbox'] },
);
