import type { Answer } from '@cuaderno/contract/route';
import { readFile } from '@cuaderno/contract/routes/files';
import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { Api } from './api';
import type { ParamOf } from './api';

/** What is asked of the server about files by their hash. */
@Injectable({ providedIn: 'root' })
export class FilesApi {
  private readonly api = inject(Api);

  readFile(hash: ParamOf<typeof readFile, 'hash'>): Observable<Answer<typeof readFile>> {
    return this.api.call(readFile, { params: { hash } });
  }
}
