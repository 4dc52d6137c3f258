/**
 * A press of play that came before there was anything to play: it is kept, and answered when the clip is there. Pressed
 * twice it is taken back.
 */
export class KeptPress {
  private isWanted = false;

  press(): void {
    this.isWanted = !this.isWanted;
  }

  /** Whether it was pressed; it is answered by that. */
  take(): boolean {
    const wasWanted = this.isWanted;
    this.isWanted = false;
    return wasWanted;
  }
}
