/** A number of any length, read byte by byte (rule 6): optional sign, digits, at most one point, at least one digit. */
const KEPT = 40 // significant digits kept; a double needs 17, the rest can only decide exact ties

export class NumberText {
  good = false
  private negative = false
  private signSeen = false
  private points = 0
  private digits = 0
  private bad = false
  private kept = ''
  private exponent = 0

  start(): void {
    this.negative = false
    this.signSeen = false
    this.points = 0
    this.digits = 0
    this.bad = false
    this.kept = ''
    this.exponent = 0
    this.good = false
  }

  /** No point in it: `12`, `-3`. */
  get whole(): boolean { return this.good && this.points === 0 }

  add(c: number): void {
    if (c >= 48 && c <= 57) {
      this.digits++
      if (this.kept.length >= KEPT) { if (this.points === 0) this.exponent++ } else {
        if (this.kept !== '' || c !== 48) this.kept += String.fromCharCode(c)
        if (this.points > 0) this.exponent--
      }
    } else if (c === 46) this.points++
    else if ((c === 43 || c === 45) && !this.signSeen && this.digits === 0 && this.points === 0) {
      this.signSeen = true
      this.negative = c === 45
    } else this.bad = true
    this.good = !this.bad && this.digits > 0 && this.points <= 1
  }

  value(): number {
    const v = this.kept === '' ? 0 : Number(`${this.kept}e${this.exponent}`)
    return this.negative ? -v : v
  }
}
