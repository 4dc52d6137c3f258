import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { PROPOSAL_RULES, type Proposal, type ReviewDocument } from '#contracts/review';
import { isTaken } from './review-draft';

const PARTS: Readonly<Record<Proposal['part'], string>> = {
  pros: 'For it',
  cons: 'Against it',
  uses: 'For whom, and for whom not',
  alternatives: 'Better alternatives',
  turningPrice: 'Price that turns the verdict',
  notTested: 'Not tested',
  sums: 'Worked out',
};

/** What the rules say of the unit. Nothing is written until a person takes it. */
@Component({
  selector: 'sd-proposals-panel',
  imports: [Button, RouterLink],
  template: `
    <h2>Proposed from facts</h2>
    <p class="small quiet">
      Nothing is written until you take it. Which rules propose, and what uses ask for, is said under
      <a routerLink="/reviews/house">How this desk reviews</a>.
    </p>
    @for (part of parts(); track part.title) {
      <h3>{{ part.title }}</h3>
      @for (p of part.proposals; track $index) {
        <div class="proposal">
          <p>
            @if (p.use !== null) {
              <strong>{{ p.use }}, {{ p.suits }} it:</strong>
            }
            @if (p.unit; as u) {
              <strong>{{ u.name }}:</strong>
            }
            {{ p.text }}
          </p>
          <p class="small quiet">
            {{ p.restsOn.fact }}. Rule: {{ ruleOf(p) }} ·
            <a
              [routerLink]="['/gear', unit()]"
              [fragment]="p.at ?? undefined"
              [attr.aria-label]="'the fact: ' + p.restsOn.fact"
              >the fact</a
            >
          </p>
          @if (isTaken(document(), p)) {
            <span class="small taken"><i class="pi pi-check" aria-hidden="true"></i> taken</span>
          } @else {
            <p-button
              size="small"
              severity="secondary"
              label="Take it"
              [ariaLabel]="'Take it: ' + p.text"
              (onClick)="taken.emit(p)"
            />
          }
        </div>
      }
    } @empty {
      <p class="quiet">
        No rule says anything of this unit yet: it takes figures, a price or answers, and other units of its kind to
        stand beside.
      </p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
      align-content: start;
    }
    h2,
    h3,
    p {
      margin: 0;
    }
    .proposal {
      display: grid;
      gap: 4px;
      justify-items: start;
      padding: 8px 0;
      border-bottom: 1px solid var(--rule);
    }
    .taken {
      color: var(--malachite-text);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ProposalsPanel {
  readonly proposals = input.required<readonly Proposal[]>();
  readonly document = input.required<ReviewDocument>();
  readonly unit = input.required<string>();
  readonly taken = output<Proposal>();

  protected readonly isTaken = isTaken;
  protected readonly parts = computed(() =>
    (Object.keys(PARTS) as Proposal['part'][])
      .map((part) => ({ title: PARTS[part], proposals: this.proposals().filter((p) => p.part === part) }))
      .filter((p) => p.proposals.length > 0),
  );

  protected ruleOf({ restsOn }: Proposal): string {
    const words = PROPOSAL_RULES[restsOn.rule];
    return words.charAt(0).toLowerCase() + words.slice(1);
  }
}
