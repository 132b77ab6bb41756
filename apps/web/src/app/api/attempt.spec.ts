import { Attempt } from './attempt';
import { ApiError } from './problem';

describe('what a screen asks of the server', () => {
  const gate = (): { open: () => void; fail: (error: unknown) => void; shut: Promise<void> } => {
    let open!: () => void;
    let fail!: (error: unknown) => void;
    const shut = new Promise<void>((resolve, reject) => {
      open = resolve;
      fail = reject;
    });
    return { open, fail, shut };
  };
  const gone = new ApiError(
    { type: 'urn:cuaderno:not-found', title: 'It isn’t there.', detail: 'Look again.' },
    404,
  );

  it('is under way until it is answered', async () => {
    const attempt = new Attempt();
    const { open, shut } = gate();
    expect(attempt.busy()).toBeFalse();
    const made = attempt.make(() => shut);
    expect(attempt.busy()).toBeTrue();
    open();
    expect(await made).toBeTrue();
    expect([attempt.busy(), attempt.problem()]).toEqual([false, null]);
  });

  it('says what went wrong, until something is tried anew', async () => {
    const attempt = new Attempt();
    expect(await attempt.make(() => Promise.reject(gone))).toBeFalse();
    expect([attempt.busy(), attempt.problem()?.title]).toEqual([false, 'It isn’t there.']);
    const { open, shut } = gate();
    const made = attempt.make(() => shut);
    expect(attempt.problem()).toBeNull();
    open();
    await made;
    expect(attempt.problem()).toBeNull();
  });

  it('stands as the last of several does, whenever the others are answered', async () => {
    const attempt = new Attempt();
    const [first, second] = [gate(), gate()];
    const made = [attempt.make(() => first.shut), attempt.make(() => second.shut)];
    second.open();
    await made[1];
    expect(attempt.busy()).toBeFalse();
    first.fail(gone);
    expect(await made[0]).toBeFalse();
    expect([attempt.busy(), attempt.problem()]).toEqual([false, null]);
  });
});
