/** Arrivals are gathered over this time; of each the one least delayed on its way is kept, s. */
const gatheredS = 10;
/** Before this a drift cannot be told from the way's own delays, s. */
const leastS = 30;
/** A clock that jumps further than this against ours does not drift: it is played, or was set, s. */
const jumpS = 2;

/**
 * How fast an instrument's clock runs against this machine's: the least
 * difference of the two in every ten seconds lies on a line whose slope is
 * the drift, for frames are delayed on their way but never early.
 */
export class ClockDrift {
  private readonly kept: { atS: number; offsetS: number }[] = [];
  private gathering: { atS: number; offsetS: number } | undefined;
  private gatheredFromS = 0;

  /** @param deviceS its clock @param wallS ours at arrival */
  push(deviceS: number, wallS: number): void {
    const offsetS = wallS - deviceS;
    const last = this.kept.at(-1);
    if (last && Math.abs(offsetS - last.offsetS) > jumpS) this.restart();
    if (!this.gathering) {
      this.gathering = { atS: wallS, offsetS };
      this.gatheredFromS = wallS;
    } else if (offsetS < this.gathering.offsetS) this.gathering = { atS: wallS, offsetS };
    if (wallS - this.gatheredFromS < gatheredS) return;
    this.kept.push(this.gathering);
    if (this.kept.length > 60) this.kept.splice(1, 1);
    this.gathering = undefined;
  }

  restart(): void {
    this.kept.length = 0;
    this.gathering = undefined;
  }

  /** By how much it runs fast, millionths; null until it can be told. */
  get ppm(): number | null {
    const [first, last] = [this.kept[0], this.kept.at(-1)];
    if (!first || !last || last.atS - first.atS < leastS) return null;
    return Math.round((-1e6 * (last.offsetS - first.offsetS)) / (last.atS - first.atS));
  }
}
