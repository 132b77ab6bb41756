import { DestroyRef, inject, Injectable } from '@angular/core';
import { firstValueFrom, retry, timer } from 'rxjs';
import { AccountsApi } from '../api/accounts-api';
import { Shortcuts } from '../board/shortcuts/shortcuts';

/** How long after it couldn't be asked what was changed about keys it is asked again, in ms. */
const AGAIN = 10_000;

/** A tutor has the keys of their account, on whichever machine. */
@Injectable()
export class AccountShortcuts {
  constructor() {
    const api = inject(AccountsApi);
    const shortcuts = inject(Shortcuts);
    const asked = api
      .readShortcuts()
      .pipe(retry({ delay: () => timer(AGAIN) }))
      .subscribe((settings) =>
        shortcuts.keepBy(async (changed) => {
          await firstValueFrom(api.setShortcuts(changed));
        }, settings),
      );
    inject(DestroyRef).onDestroy(() => {
      asked.unsubscribe();
      shortcuts.keepInBrowser();
    });
  }
}
