import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import qrcode from 'qrcode-generator';

/** A link to be read by the camera of a phone. */
@Component({
  selector: 'sd-qr-code',
  template: `
    <svg [attr.viewBox]="view()" role="img" [attr.aria-label]="'QR code of ' + text()" shape-rendering="crispEdges">
      <rect width="100%" height="100%" fill="#ffffff" />
      <path [attr.d]="path()" fill="#000000" />
    </svg>
  `,
  styles: `
    :host {
      display: block;
      width: 160px;
    }
    svg {
      display: block;
      width: 100%;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class QrCode {
  readonly text = input.required<string>();

  private readonly code = computed(() => {
    const code = qrcode(0, 'M');
    code.addData(this.text());
    code.make();
    return code;
  });
  /** Four modules of quiet around it, as ISO/IEC 18004 asks for. */
  protected readonly view = computed(
    () => `0 0 ${this.code().getModuleCount() + 8} ${this.code().getModuleCount() + 8}`,
  );
  protected readonly path = computed(() => {
    const code = this.code();
    const count = code.getModuleCount();
    let path = '';
    for (let row = 0; row < count; row++)
      for (let column = 0; column < count; column++)
        if (code.isDark(row, column)) path += `M${column + 4} ${row + 4}h1v1h-1z`;
    return path;
  });
}
