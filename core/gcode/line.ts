/**
 * Reads one line byte by byte (rules 3 to 11), however long it is, keeping only its words.
 * This is the complete grammar; `scan.ts` has a short cut for plain G0 / G1 lines that falls back to this one.
 */
import { NumberText } from './number-text'

const LETTER_G = 71,
  LETTER_M = 77,
  LETTER_N = 78,
  LETTER_T = 84,
  LETTER_E = 69,
  LETTER_P = 80

export const G = 0,
  M = 1000,
  T = 2000
const LISTED = new Set([
  0,
  1,
  2,
  3,
  10,
  11,
  20,
  21,
  90,
  91,
  92,
  ...[82, 83, 104, 106, 107, 109, 140, 141, 190, 191, 200, 221].map(m => M + m),
])
/** Commands on whose line T, or P, is an index (rule 10). */
const T_IS_INDEX = new Set([M + 104, M + 109, M + 221])
const P_IS_INDEX = new Set([G + 10, M + 106, M + 107])

const enum Mode {
  Words,
  LineComment,
  Bracket,
  Checksum,
  ChecksumBracket,
}
const enum Word {
  None,
  Letter,
  Number,
}

export type Fault = 'bad-number' | 'unknown-word'

export class Line {
  /** -1: blank line or not listed; otherwise G or M plus the number, or T. */
  command = -1
  /** Name of a command that is not listed, for counting. */
  ignored: string | null = null
  toolNumber = 0
  fault: Fault | null = null
  badChecksum = false
  /** Bit n set: letter A + n was given, value in `value[n]`. */
  given = 0
  readonly value = new Float64Array(26)

  private mode = Mode.Words
  private xor = 0
  private sawChecksum = false
  private checksum = 0
  private checksumDigits = 0
  private checksumBad = false
  private reading = true
  private state = Word.None
  private words = 0
  private sawN = false
  private commandRead = false
  private letter = 0
  private afterBlank = true
  private afterNumber = false
  private numberDirect = true
  private previousCouldBeExponent = false
  private lastWasBlank = true
  private number = new NumberText()

  start(): void {
    this.command = -1
    this.ignored = null
    this.fault = null
    this.badChecksum = false
    this.given = 0
    this.mode = Mode.Words
    this.xor = 0
    this.sawChecksum = false
    this.checksum = 0
    this.checksumDigits = 0
    this.checksumBad = false
    this.reading = true
    this.state = Word.None
    this.words = 0
    this.sawN = false
    this.commandRead = false
    this.previousCouldBeExponent = false
    this.lastWasBlank = true
  }

  has(letter: string): boolean {
    return ((this.given >> (letter.charCodeAt(0) - 65)) & 1) === 1
  }
  get(letter: string): number {
    return this.value[letter.charCodeAt(0) - 65]!
  }

  /** One byte of the line, without its LF. */
  feed(c: number): void {
    switch (this.mode) {
      case Mode.Words:
        this.feedWords(c)
        return
      case Mode.LineComment:
        return
      case Mode.Bracket:
        this.xor ^= c
        if (c === 41) this.mode = Mode.Words
        return
      case Mode.ChecksumBracket:
        if (c === 41) this.mode = Mode.Checksum
        return
      case Mode.Checksum:
        if (c === 59) this.mode = Mode.LineComment
        else if (c === 40) this.mode = Mode.ChecksumBracket
        else if (c >= 48 && c <= 57) {
          this.checksum = Math.min(1e9, this.checksum * 10 + c - 48)
          this.checksumDigits++
        } else if (c !== 32 && c !== 9 && c !== 13) this.checksumBad = true
    }
  }

  private feedWords(c: number): void {
    if (c === 42) {
      // *
      this.endWord(true)
      this.sawChecksum = true
      this.mode = Mode.Checksum
      return
    }
    if (c === 59) {
      // ;
      this.endWord(true)
      this.mode = Mode.LineComment
      return
    }
    this.xor ^= c
    if (c === 40 || c === 32 || c === 9 || c === 13) {
      this.endWord(true)
      this.lastWasBlank = true
      if (c === 40) this.mode = Mode.Bracket
      return
    }
    if (!this.reading) return
    const upper = c >= 97 && c <= 122 ? c - 32 : c
    if (upper >= 65 && upper <= 90) {
      if (this.state === Word.Letter) this.wordDone(null, false) // a letter straight after a letter: number missing
      this.afterNumber = this.state === Word.Number
      this.endWord(false)
      if (this.reading) this.beginWord(upper)
    } else if (this.state === Word.None) this.fail('unknown-word')
    else {
      if (this.state === Word.Letter) {
        this.numberDirect = !this.lastWasBlank
        this.number.start()
        this.state = Word.Number
      }
      this.number.add(c)
    }
    this.lastWasBlank = false
  }

  private beginWord(letter: number): void {
    this.letter = letter
    this.afterBlank = this.lastWasBlank
    this.state = Word.Letter
    if (this.commandRead) {
      if (letter === LETTER_G || letter === LETTER_M) this.fail('unknown-word')
    } else if (
      !(letter === LETTER_N && this.words === 0) &&
      letter !== LETTER_G &&
      letter !== LETTER_M &&
      letter !== LETTER_T
    )
      this.fail('unknown-word')
  }

  /** A blank, a letter or the end closes a number; a letter that still waits for its number stays open over blanks. */
  private endWord(blankAfter: boolean): void {
    if (!this.reading || this.state !== Word.Number) return
    this.wordDone(this.number, blankAfter)
  }

  private fail(kind: Fault): void {
    this.fault = kind
    this.reading = false
    this.command = -1
    this.state = Word.None
  }

  private wordDone(text: NumberText | null, blankAfter: boolean): void {
    const good = text !== null && text.good
    this.state = Word.None
    this.words++
    if (!this.commandRead) {
      this.firstWord(good)
      return
    }
    if (!good) {
      this.fail('bad-number')
      return
    }
    if (
      this.letter === LETTER_E &&
      this.afterNumber &&
      this.previousCouldBeExponent &&
      this.numberDirect &&
      blankAfter &&
      text.whole
    ) {
      this.fail('bad-number') // exponent notation (rule 7)
      return
    }
    const n = this.letter - 65
    const value = text.value()
    if (
      ((this.given >> n) & 1) === 1 ||
      !Number.isFinite(value) ||
      (this.isIndex() && !(Number.isInteger(value) && value >= 0))
    ) {
      this.fail('bad-number')
      return
    }
    this.given |= 1 << n
    this.value[n] = value
    this.previousCouldBeExponent = this.afterBlank
  }

  private isIndex(): boolean {
    return (
      (this.letter === LETTER_T && T_IS_INDEX.has(this.command)) ||
      (this.letter === LETTER_P && P_IS_INDEX.has(this.command))
    )
  }

  private firstWord(good: boolean): void {
    if (!good) {
      this.fail('unknown-word')
      return
    }
    if (this.letter === LETTER_N) {
      this.sawN = true
      return
    }
    const value = this.number.value()
    this.commandRead = true
    this.previousCouldBeExponent = false
    if (this.letter === LETTER_T) {
      if (!Number.isInteger(value) || value < 0) {
        this.fail('unknown-word')
        return
      }
      this.command = T
      this.toolNumber = value
      this.given |= 1 << (LETTER_T - 65)
      return
    }
    if (!Number.isFinite(value)) {
      this.fail('unknown-word')
      return
    }
    const code = (this.letter === LETTER_G ? G : M) + value
    if (value >= 0 && value < 1000 && LISTED.has(code)) this.command = code
    else {
      this.ignored = String.fromCharCode(this.letter) + value
      this.reading = false
    }
  }

  /** End of the line. Afterwards `command`, `fault` and `badChecksum` are final. */
  finish(): void {
    if (this.mode === Mode.Words) this.endWord(true)
    if (this.reading && this.state === Word.Letter) this.wordDone(null, true) // a letter without a number at the end
    if (this.reading && this.sawN && !this.commandRead) this.fail('unknown-word')
    if (this.sawChecksum) this.badChecksum = this.checksumBad || this.checksumDigits === 0 || this.checksum !== this.xor
  }
}
