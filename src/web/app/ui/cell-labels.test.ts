import { describe, expect, it } from 'vitest';
import { labelCells } from './cell-labels';

describe('cells on a narrow screen', () => {
  it('carry the heading of their column; one that spans several carries none', () => {
    document.body.innerHTML = `<table><thead><tr><th>Unit</th><th> Price
      now <i aria-hidden="true">−1 0 1</i></th><th></th></tr></thead>
      <tbody><tr><td>a</td><td>1</td><td>x</td></tr><tr><td colspan="2">none</td><td>y</td></tr></tbody></table>
      <table><tbody><tr><td>plain</td></tr></tbody></table>`;
    labelCells(document.body);
    const labels = [...document.querySelectorAll('td')].map((td) => td.dataset['label']);
    expect(labels).toEqual(['Unit', 'Price now', '', '', '', undefined]);
  });
});
