import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { firstToFocus } from './first-to-focus';
import { focusToReturn, returnFocus } from './focus-to-return';

const HEADER = '<div class="p-dialog-header"><button id="cross">x</button></div>';

/** A dialog as the library draws it: the cross first, then what is asked, then the answers. */
function dialog(content: string, footer = ''): HTMLElement {
  const element = document.createElement('div');
  element.innerHTML = `${HEADER}<div class="p-dialog-content">${content}</div><div class="p-dialog-footer">${footer}</div>`;
  document.body.append(element);
  return element;
}

beforeEach(() => {
  document.body.innerHTML = '<input id="outside" />';
});
afterEach(() => {
  document.body.innerHTML = '';
});

describe('what takes the keys when a dialog opens', () => {
  it('is its first field, though the cross stands before it', () => {
    expect(firstToFocus(dialog('<p>Why?</p><textarea id="why"></textarea><input id="more">'))?.id).toBe('why');
  });

  it('is an answer where nothing is asked, and the cross where there is none', () => {
    expect(firstToFocus(dialog('<p>Mind your ears.</p>', '<button id="yes">Yes</button>'))?.id).toBe('yes');
    expect(firstToFocus(dialog('<p>Keys</p>'))?.id).toBe('cross');
  });

  it('is nothing that is shut, hidden, or left out of the order of keys', () => {
    const content =
      '<input disabled><input type="hidden"><button tabindex="-1"></button><a>no</a><select id="s"></select>';
    expect(firstToFocus(dialog(content))?.id).toBe('s');
  });

  it('stays where somebody has gone to by themselves', () => {
    const open = dialog('<input id="first"><input id="second">');
    open.querySelector<HTMLElement>('#second')?.focus();
    expect(firstToFocus(open)).toBeNull();
  });
});

describe('the keys, when a dialog has closed,', () => {
  const outside = (): HTMLElement => document.querySelector<HTMLElement>('#outside')!;

  it('go back to where they were', () => {
    outside().focus();
    const before = focusToReturn(document);
    expect(before).toBe(outside());
    outside().blur();
    returnFocus(before);
    expect(document.activeElement).toBe(outside());
  });

  it('stay with the screen where nothing had them', () => {
    expect(focusToReturn(document)).toBeNull();
    returnFocus(null);
    expect(document.activeElement).toBe(document.body);
  });

  it('stay where somebody has gone to meanwhile', () => {
    const other = dialog('<input id="other">').querySelector<HTMLElement>('#other')!;
    other.focus();
    returnFocus(outside());
    expect(document.activeElement).toBe(other);
  });

  it('go nowhere where their place has gone', () => {
    const gone = outside();
    gone.remove();
    returnFocus(gone);
    expect(document.activeElement).toBe(document.body);
  });
});
