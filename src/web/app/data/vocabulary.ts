import { Injectable, inject } from '@angular/core';
import { filter, type Observable } from 'rxjs';
import type { Category } from '#contracts/common';
import { ENDPOINTS } from '#contracts/http';
import type { Vocabulary, WordMeaningDraft, WordPage } from '#contracts/vocabulary';
import { Api } from './api';
import { Events } from './events';
import { live } from './live';
import type { Loaded } from './loaded';

/** Words that listeners have said over the years. */
@Injectable({ providedIn: 'root' })
export class VocabularyData {
  private readonly api = inject(Api);
  private readonly events = inject(Events);

  words(category: Category): Observable<Loaded<Vocabulary>> {
    const changes = this.events.events.pipe(filter((e) => e.type === 'listening' || e.type === 'specimen'));
    return live(() => this.now(category), changes, this.events.reconnects);
  }

  now(category: Category): Observable<Vocabulary> {
    return this.api.call(ENDPOINTS.vocabulary, { params: { category } });
  }

  word(category: Category, word: string): Observable<WordPage> {
    return this.api.call(ENDPOINTS.vocabularyWord, { params: { category, word } });
  }

  mean(meaning: WordMeaningDraft): Observable<unknown> {
    return this.api.call(ENDPOINTS.meanWord, { body: meaning });
  }
}
