import type { Answer } from '@cuaderno/contract/route';
import { createBoardOfAsset, listShareReceivers } from '@cuaderno/contract/routes/materials';
import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { Api } from './api';
import type { ParamOf, BodyOf } from './api';

/** What is asked of the server about the tutor’s materials. */
@Injectable({ providedIn: 'root' })
export class MaterialsApi {
  private readonly api = inject(Api);

  createBoardOfAsset(
    asset: ParamOf<typeof createBoardOfAsset, 'asset'>,
    body: BodyOf<typeof createBoardOfAsset>,
  ): Observable<Answer<typeof createBoardOfAsset>> {
    return this.api.call(createBoardOfAsset, { params: { asset }, body });
  }

  listShareReceivers(): Observable<Answer<typeof listShareReceivers>> {
    return this.api.call(listShareReceivers);
  }
}
