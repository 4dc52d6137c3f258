import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import { Button } from 'primeng/button';
import { PLAIN_PATHS } from '#contracts/http';
import type { TestPage } from '#contracts/listening';
import { copyText } from '../../ui/copy-text';
import { today } from '../../ui/format';
import { announcement, openingWords, revealWords } from './pack-words';

/** What of a test goes out, what is made known before, and what opens it. */
@Component({
  selector: 'sd-sent-pack',
  imports: [Button],
  template: `
    @if (page().pack; as pack) {
      <section class="panel pad">
        <h2>What goes out</h2>
        <p>
          {{ pack.clips.length }} clips under the names {{ pack.clips.join(', ') }}: 16 bits, one length, one loudness,
          nothing in them but sound. Which is which is in none of it but the seal.
        </p>
        <div class="actions">
          @if (page().row.status === 'open') {
            <a class="link" [href]="path('blindPackZip')" download>Page, clips and seal (ZIP)</a>
            <a class="link" [href]="path('blindPackPage')" download>The page alone (HTML)</a>
          }
          @if (pack.openingCode !== null) {
            <a class="link" [href]="path('blindPackKey')" download>The key (JSON)</a>
          }
        </div>
        @if (pack.openingCode === null) {
          <h3>Make this known before anybody hears it</h3>
          <p class="quiet">Whoever has this line can count the key's hash on the day: nobody can have changed it.</p>
        } @else {
          <h3>Make this known now</h3>
          <p class="quiet">The code opens the seal in every page that went out.</p>
        }
        <p class="num told">{{ words() }}</p>
        <div class="actions">
          <p-button size="small" severity="secondary" label="Copy the line" icon="pi pi-copy" (onClick)="copy()" />
          <span class="small quiet" role="status">{{ copied() }}</span>
        </div>
        @if (pack.openingCode === null) {
          <p class="small" [class.warn]="reveal().isDue">{{ reveal().words }}</p>
        }
      </section>
    }
  `,
  styles: `
    :host {
      display: contents;
    }
    .actions {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 16px;
      align-items: center;
    }
    .told {
      padding: 8px;
      overflow-wrap: anywhere;
      white-space: normal;
      border: 1px solid var(--rule);
    }
    h3,
    p {
      margin: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SentPack {
  readonly page = input.required<TestPage>();
  protected readonly copied = signal('');
  protected readonly words = computed(() => {
    const { settings, pack } = this.page();
    if (!pack || !settings.pack) return '';
    return pack.openingCode === null ? announcement(settings.pack, pack) : openingWords(settings.pack, pack);
  });
  protected readonly reveal = computed(() => revealWords(this.page().settings.pack?.revealOn ?? today(), today()));

  protected path(name: 'blindPackZip' | 'blindPackPage' | 'blindPackKey'): string {
    return PLAIN_PATHS[name].replace(':id', this.page().row.id);
  }

  protected async copy(): Promise<void> {
    this.copied.set((await copyText(this.words())) ? 'Copied.' : 'Mark the line and copy it by hand.');
  }
}
