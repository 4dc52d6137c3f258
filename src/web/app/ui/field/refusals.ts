import { Injectable } from '@angular/core';

/** A field that holds something which was not understood. */
export interface RefusedField {
  readonly focus: () => void;
}

/**
 * Fields on the screen that hold something which was not understood. What they show is not what the page would save, so
 * nothing is saved until they are corrected or emptied.
 */
@Injectable({ providedIn: 'root' })
export class Refusals {
  private readonly fields = new Set<RefusedField>();

  note(field: RefusedField): void {
    this.fields.add(field);
  }

  forget(field: RefusedField): void {
    this.fields.delete(field);
  }

  /** Asked before anything is saved: true where a field is refused; that field is then brought into view. */
  stop(): boolean {
    const [first] = this.fields;
    (first as RefusedField | undefined)?.focus();
    return this.fields.size > 0;
  }
}
