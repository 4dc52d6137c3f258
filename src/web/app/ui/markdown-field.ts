import type { ElementRef, OnDestroy } from '@angular/core';
import { ChangeDetectionStrategy, Component, afterNextRender, computed, effect, input, output, signal, viewChild } from '@angular/core'; // prettier-ignore
import { Button } from 'primeng/button';
import { baseKeymap, setBlockType, toggleMark, wrapIn } from 'prosemirror-commands';
import { history, redo, undo } from 'prosemirror-history';
import { keymap } from 'prosemirror-keymap';
import { defaultMarkdownParser, defaultMarkdownSerializer, schema } from 'prosemirror-markdown';
import { liftListItem, sinkListItem, splitListItem, wrapInList } from 'prosemirror-schema-list';
import { EditorState, type Command } from 'prosemirror-state';
import { EditorView } from 'prosemirror-view';

interface Tool {
  readonly label: string;
  readonly icon: string;
  readonly command: Command;
}

const { nodes, marks } = schema;

const TOOLS: readonly Tool[] = [
  { label: 'Bold', icon: 'B', command: toggleMark(marks.strong) },
  { label: 'Italic', icon: 'I', command: toggleMark(marks.em) },
  { label: 'Heading', icon: 'H', command: setBlockType(nodes.heading, { level: 2 }) },
  { label: 'Paragraph', icon: '¶', command: setBlockType(nodes.paragraph) },
  { label: 'List', icon: '•', command: wrapInList(nodes.bullet_list) },
  { label: 'Numbered list', icon: '1.', command: wrapInList(nodes.ordered_list) },
  { label: 'Quotation', icon: '”', command: wrapIn(nodes.blockquote) },
  { label: 'Undo', icon: '↶', command: undo },
  { label: 'Redo', icon: '↷', command: redo },
];

/** Text with headings, lists and emphasis, kept as Markdown. */
@Component({
  selector: 'sd-markdown-field',
  imports: [Button],
  template: `
    <span class="label" [id]="id() + '-label'">{{ label() }}</span>
    <div class="tools" role="toolbar" [attr.aria-label]="'Format: ' + label()">
      @for (tool of tools; track tool.label) {
        <p-button
          [text]="true"
          size="small"
          [label]="tool.icon"
          [ariaLabel]="tool.icon + ' ' + tool.label"
          (onClick)="run(tool.command)"
        />
      }
    </div>
    <div #host class="host"></div>
    @if (isTooLong()) {
      <p class="small refused" role="alert">At most {{ most() }} characters are kept; this has {{ length() }}.</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 2px;
    }
    .label {
      color: var(--quiet);
      font-size: 12px;
    }
    .tools {
      display: flex;
      flex-wrap: wrap;
    }
    .host ::ng-deep .ProseMirror {
      min-height: 120px;
      padding: 8px 12px;
      border: 1px solid var(--rule);
      border-radius: 2px;
      background: var(--panel);
      white-space: pre-wrap;
      overflow-wrap: anywhere;
    }
    .host ::ng-deep .ProseMirror:focus-visible {
      outline: 2px solid var(--azurite);
      outline-offset: 1px;
    }
    .host ::ng-deep .ProseMirror > :first-child {
      margin-top: 0;
    }
    .refused {
      margin: 0;
      color: var(--cinnabar-text);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MarkdownField implements OnDestroy {
  readonly label = input.required<string>();
  readonly value = input.required<string>();
  readonly valueChange = output<string>();
  /** Most characters that are kept. */
  readonly most = input(20_000);
  readonly id = input(`markdown-${Math.random().toString(36).slice(2)}`);

  protected readonly tools = TOOLS;
  protected readonly length = signal(0);
  protected readonly isTooLong = computed(() => this.length() > this.most());
  private readonly host = viewChild.required<ElementRef<HTMLElement>>('host');
  private view: EditorView | null = null;
  /** What was told last: coming back, it is no change from outside. */
  private told = '';

  constructor() {
    afterNextRender(() => this.begin());
    effect(() => {
      const value = this.value();
      if (this.view && value !== this.told) {
        this.told = value;
        this.view.updateState(this.stateOf(value));
      }
    });
  }

  ngOnDestroy(): void {
    this.view?.destroy();
  }

  protected run(command: Command): void {
    const { view } = this;
    if (!view) return;
    command(view.state, view.dispatch, view);
    view.focus();
  }

  private begin(): void {
    this.told = this.value();
    this.view = new EditorView(this.host().nativeElement, {
      state: this.stateOf(this.told),
      attributes: { role: 'textbox', 'aria-multiline': 'true', 'aria-labelledby': `${this.id()}-label` },
      dispatchTransaction: (transaction) => {
        const { view } = this;
        if (!view) return;
        view.updateState(view.state.apply(transaction));
        if (transaction.docChanged) this.tell();
      },
    });
    this.length.set(this.told.length);
  }

  private tell(): void {
    const { view } = this;
    if (!view) return;
    this.told = defaultMarkdownSerializer.serialize(view.state.doc);
    this.length.set(this.told.length);
    this.valueChange.emit(this.told);
  }

  private stateOf(markdown: string): EditorState {
    return EditorState.create({
      doc: defaultMarkdownParser.parse(markdown),
      plugins: [
        history(),
        keymap({
          'Mod-b': toggleMark(marks.strong),
          'Mod-i': toggleMark(marks.em),
          'Mod-z': undo,
          'Mod-y': redo,
          'Shift-Mod-z': redo,
          Enter: splitListItem(nodes.list_item),
          'Mod-[': liftListItem(nodes.list_item),
          'Mod-]': sinkListItem(nodes.list_item),
        }),
        keymap(baseKeymap),
      ],
    });
  }
}
