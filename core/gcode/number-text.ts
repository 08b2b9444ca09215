/** A number of any length, read byte by byte (rule 6): optional sign, digits, at most one point, at least one digit. */

/**
 * A number beyond this is no length, speed or temperature of a job; one nearer to 0 than the other is 0. So no sum or
 * quotient of a file can overflow.
 */
export const LARGEST = 1e12
export const SMALLEST = 1e-12
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
  get whole(): boolean {
    return this.good && this.points === 0
  }

  add(c: number): void {
    if (c >= 48 && c <= 57) {
      this.digits++
      if (this.kept.length >= KEPT) {
        if (this.points === 0) this.exponent++
      } else {
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

  /** Infinity where the number is too large. */
  value(): number {
    const size = this.kept === '' ? 0 : Number(`${this.kept}e${this.exponent}`)
    let v = size
    if (size > LARGEST) v = Infinity
    if (size < SMALLEST) v = 0
    return this.negative ? -v : v
  }
}
