import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { of, switchMap } from 'rxjs';
import { OWN_HATCHES, kindOf, type KindDocument } from '#core/gear/kind-document';
import { isShippedKind, shippedKind, SHIPPED_KIND_IDS, type ShippedKindId } from '#core/gear/kinds';
import { listColumns, possibleColumns } from '#core/gear/list-columns';
import { SHEET_GROUPS, isClassField, type SheetField } from '#core/gear/sheet/sheet-field';
import { SHEET_UNITS } from '#core/gear/sheet/sheet-units';
import { isQuantity, type QuantityId } from '#core/measure/registry';
import type { Category } from '#contracts/common';
import { issueText } from '#contracts/issue-text';
import { kindDocumentSchema, kindProblems, type Kind } from '#contracts/kind';
import { servesKind } from '#contracts/protocol';
import { Breadcrumb } from '../../data/breadcrumb';
import { CatalogueData } from '../../data/catalogue';
import { KindData } from '../../data/kinds';
import { ScreenKeys } from '../../data/keys';
import { LOADING } from '../../data/loaded';
import { Saving } from '../../data/saving';
import { ChoiceField } from '../../ui/field/choice-field';
import { ListField } from '../../ui/field/list-field';
import { Refusals } from '../../ui/field/refusals';
import { TextField } from '../../ui/field/text-field';
import { TickField } from '../../ui/field/tick-field';
import { ProblemBox } from '../../ui/problem-box';
import { fieldId, newKind, withColumn, withType } from './kind-draft';

const TYPE_NAMES: Readonly<Record<SheetField['type'], string>> = {
  number: 'a number with its unit',
  choice: 'one of some words',
  several: 'several words',
  'yes-no': 'yes or no',
  text: 'text',
};

/** Kinds of gear: what their data sheets have a place for, what lists show of them, and kinds of one’s own. */
@Component({
  selector: 'sd-kinds',
  imports: [Button, ChoiceField, FormsModule, ListField, ProblemBox, RouterLink, TextField, TickField],
  templateUrl: './kinds.html',
  styleUrl: './kinds.css',
  host: { class: 'page-frame' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Kinds {
  /** ?kind=… is the kind that is shown. */
  readonly kind = input<string>();

  private readonly router = inject(Router);
  private readonly data = inject(KindData);
  private readonly catalogue = inject(CatalogueData);
  private readonly refusals = inject(Refusals);
  protected readonly saving = new Saving();

  private readonly loaded = toSignal(this.data.kinds, { initialValue: LOADING });
  protected readonly problem = computed(() => this.loaded().problem);
  private readonly kinds = computed<readonly Kind[]>(() => this.loaded().value ?? []);
  protected readonly choices = computed(() =>
    this.kinds().map((k) => ({
      label: k.document.name,
      value: k.document.id,
      note: k.units === 1 ? '1 unit' : `${k.units} units`,
    })),
  );
  protected readonly shown = computed<Kind | null>(
    () => this.kinds().find((k) => k.document.id === this.kind()) ?? this.kinds().at(0) ?? null,
  );
  /** What is being changed or added; null while nothing is. */
  protected readonly draft = linkedSignal<string | undefined, KindDocument | null>({
    source: this.kind,
    computation: () => null,
  });
  protected readonly document = computed(() => this.draft() ?? this.shown()?.document ?? null);
  protected readonly isNew = computed(() => {
    const draft = this.draft();
    return draft !== null && !this.kinds().some((k) => k.document.id === draft.id);
  });
  protected readonly isOwn = computed(() => !isShippedKind(this.document()?.id ?? ''));
  protected readonly used = computed(() => new Set(this.isNew() ? [] : (this.shown()?.usedFields ?? [])));
  private readonly made = computed(() => {
    const document = this.document();
    return document && kindOf(document, shippedKind(document.like));
  });

  /** Fields of the kind that it is like, and its own, part by part. */
  protected readonly parts = computed(() => {
    const document = this.document();
    if (!document) return [];
    const shipped = shippedKind(document.like).sheet.map((field) => ({ field, isOwn: false }));
    const own = this.draft() ? [] : document.fields.map((field) => ({ field, isOwn: true }));
    const without = new Set(document.withoutFields);
    return SHEET_GROUPS.map((group) => ({
      group,
      fields: [...shipped, ...own]
        .filter(({ field }) => field.group === group && (this.draft() !== null || !without.has(field.id)))
        .map((f) => ({ ...f, isShown: !without.has(f.field.id) })),
    })).filter((part) => part.fields.length > 0);
  });

  private readonly rubrics = toSignal(this.catalogue.rubrics, { initialValue: LOADING });
  protected readonly hasRules = computed(() =>
    (this.rubrics().value ?? []).some((r) => r.category === this.shown()?.document.id),
  );

  private readonly facts = toSignal(
    toObservable(computed(() => (!this.isNew() && this.hasRules() ? (this.shown()?.document.id ?? null) : null))).pipe(
      switchMap((kind) => (kind === null ? of(LOADING) : this.catalogue.rankingInputs(kind))),
    ),
    { initialValue: LOADING },
  );
  private readonly figures = computed<readonly QuantityId[]>(() => {
    const units = this.facts().value?.units ?? [];
    return [...new Set(units.flatMap((u) => Object.keys(u.figures)))].filter(isQuantity);
  });
  protected readonly columns = computed(() => {
    const kind = this.made();
    if (!kind) return [];
    const chosen = listColumns(kind).map((c) => c.id);
    return possibleColumns(kind, this.figures()).map((c) => ({ ...c, at: chosen.indexOf(c.id) }));
  });
  protected readonly columnNames = computed(() => {
    const kind = this.made();
    return kind ? listColumns(kind).map((c) => c.name).join(', ') : ''; // prettier-ignore
  });

  private readonly protocolsLoaded = toSignal(this.catalogue.protocols, { initialValue: LOADING });
  /** Protocols that serve it, the newest version of each. */
  protected readonly protocols = computed(() => {
    const id = this.shown()?.document.id ?? '';
    const own = (this.protocolsLoaded().value ?? []).filter((p) => servesKind(p, id));
    return own.filter((p) => own.every((o) => o.id !== p.id || o.version <= p.version));
  });
  protected readonly problems = computed(() => {
    const draft = this.draft();
    if (!draft) return [];
    const parsed = kindDocumentSchema.safeParse(draft);
    if (!parsed.success) return parsed.error.issues.map((i) => issueText(i));
    const stands = this.isNew() ? null : (this.shown()?.document ?? null);
    return kindProblems(parsed.data, stands, this.used()).map((p) => p.message);
  });

  /** Name of a kind that is to be added, and the one that it is like. */
  protected readonly newName = signal('');
  protected readonly like = signal<ShippedKindId>('accessory');
  protected readonly isAdding = signal(false);
  protected readonly likes = SHIPPED_KIND_IDS.map((value) => ({ label: shippedKind(value).name, value }));
  protected readonly hatches = OWN_HATCHES.map((value) => ({ label: value, value }));
  protected readonly types = (Object.keys(TYPE_NAMES) as SheetField['type'][]).map((value) => ({ label: TYPE_NAMES[value], value })); // prettier-ignore
  protected readonly groups = SHEET_GROUPS.map((value) => ({ label: value, value }));
  protected readonly units = Object.keys(SHEET_UNITS).map((value) => ({ label: value || 'none: a count', value }));

  constructor() {
    const breadcrumb = inject(Breadcrumb);
    effect(() =>
      breadcrumb.crumbs.set([
        { label: 'Kinds', link: null },
        { label: this.document()?.name ?? '', link: null },
      ]),
    );
    inject(ScreenKeys).hints.set([]);
  }

  protected typeWords(field: SheetField): string {
    const words =
      field.type === 'number'
        ? `number${field.unit === '' ? '' : ` in ${field.unit}`}`
        : field.type === 'choice' || field.type === 'several'
          ? `${field.type === 'choice' ? 'one of' : 'several of'}: ${field.options.join(', ')}`
          : field.type === 'yes-no'
            ? 'yes or no'
            : 'text';
    return isClassField(field) ? `${words} · a class` : words;
  }

  protected setKind(kind: Category): void {
    void this.router.navigate([], { queryParams: { kind } });
  }

  protected begin(): void {
    this.draft.set(this.shown()?.document ?? null);
  }

  protected startKind(): void {
    this.draft.set(newKind(this.newName().trim(), this.like(), this.kinds().map((k) => k.document))); // prettier-ignore
    this.isAdding.set(false);
  }

  protected change(part: Partial<KindDocument>): void {
    this.draft.update((d) => d && { ...d, ...part });
  }

  protected setShown(field: string, isShown: boolean): void {
    const others = (this.draft()?.withoutFields ?? []).filter((f) => f !== field);
    this.change({ withoutFields: isShown ? others : [...others, field] });
  }

  protected addField(): void {
    const draft = this.draft();
    if (!draft) return;
    const taken = [...shippedKind(draft.like).sheet, ...draft.fields].map((f) => f.id);
    const field: SheetField = {
      id: fieldId('own field', taken),
      name: '',
      group: 'Body',
      type: 'yes-no',
      isClass: false,
    };
    this.change({ fields: [...draft.fields, field] });
  }

  /** A field that is new takes its name for files from what it is called; one that is saved keeps it. */
  protected setField(at: number, part: Partial<SheetField>): void {
    const draft = this.draft();
    if (!draft) return;
    const saved = this.isNew() ? [] : (this.shown()?.document.fields ?? []);
    const fields = draft.fields.map((field, i) => {
      if (i !== at) return field;
      const next = { ...field, ...part } as SheetField;
      if (part.name === undefined || saved.some((f) => f.id === field.id)) return next;
      const taken = [...shippedKind(draft.like).sheet, ...draft.fields.filter((_, j) => j !== at)].map((f) => f.id);
      return { ...next, id: fieldId(part.name, taken) };
    });
    this.change({ fields });
  }

  protected setType(at: number, type: SheetField['type']): void {
    this.change({ fields: (this.draft()?.fields ?? []).map((f, i) => (i === at ? withType(f, type) : f)) });
  }

  protected removeField(at: number): void {
    const fields = this.draft()?.fields ?? [];
    const gone = fields[at];
    const columns = this.draft()?.columns?.filter((c) => c !== `sheet:${gone.id}`) ?? null;
    this.change({ fields: fields.filter((_, i) => i !== at), columns });
  }

  protected setColumn(id: string, isShown: boolean): void {
    const kind = this.made();
    if (kind) this.change({ columns: withColumn(this.draft()?.columns ?? null, kind.keyFigures, id, isShown) });
  }

  protected cancel(): void {
    this.draft.set(null);
  }

  protected save(): void {
    const draft = this.draft();
    if (!draft || this.problems().length > 0 || this.refusals.stop()) return;
    this.saving.run(this.data.save(draft), ({ document }) => {
      this.draft.set(null);
      this.setKind(document.id);
    });
  }
}
