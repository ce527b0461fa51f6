/**
 * Values one after the other as bytes, for records that are kept by the hundred thousand. A form of our own that never
 * leaves the memory of this program: what is written is read by the same fields in the same order, so that neither names
 * nor types are kept, and nothing is made that is not part of the value.
 */
import { half, type Id, idFrom } from "./id";

/** First byte of a value that may be of any type. Whole numbers from 0 stand behind the last of them. */
const NULL = 0;
const FALSE = 1;
const TRUE = 2;
const DOUBLE = 3;
const TEXT = 4;
const WHOLE = 5;
const NEGATIVE = 6;
const JSON_TEXT = 7;
const SMALL = 8;
/** Stands for no id: more than six digits can say. */
const NO_ID = 0xffffffff;

const double = new Float64Array(1);
const doubleBytes = new Uint8Array(double.buffer);

export class ByteWriter {
  private bytes = new Uint8Array(1024);
  private size = 0;

  /** What was written since the last call; good until something is written again. */
  taken(): Uint8Array {
    const taken = this.bytes.subarray(0, this.size);
    this.size = 0;
    return taken;
  }

  /** A whole number from 0 up to 2^53: seven bits a byte, the lowest first. */
  whole(n: number): void {
    this.room(8);
    let left = n;
    for (; left >= 128; left = Math.floor(left / 128)) this.bytes[this.size++] = (left % 128) + 128;
    this.bytes[this.size++] = left;
  }

  /** Four bytes, the lowest first. */
  private fixed(n: number): void {
    this.room(4);
    for (let k = 0; k < 4; k++) this.bytes[this.size++] = n >>> (8 * k);
  }

  id(id: Id | null): void {
    if (id === null) this.fixed(NO_ID);
    else {
      this.fixed(half(id, 0));
      this.fixed(half(id, 6));
    }
  }

  /** One byte a character where all are of the first 256, else two. */
  text(text: string): void {
    const { length } = text;
    let wide = 0;
    for (let k = 0; k < length && !wide; k++) wide = text.charCodeAt(k) >> 8;
    this.whole(length * 2 + (wide ? 1 : 0));
    this.room(length * 2);
    for (let k = 0; k < length; k++) {
      const c = text.charCodeAt(k);
      this.bytes[this.size++] = c;
      if (wide) this.bytes[this.size++] = c >> 8;
    }
  }

  /** Any value: null, yes or no, a number, a text, or something made of these. */
  value(value: unknown): void {
    this.room(9);
    if (typeof value === "number") {
      if (Number.isSafeInteger(value) && !Object.is(value, -0)) {
        if (value >= 0 && value <= 255 - SMALL) this.bytes[this.size++] = SMALL + value;
        else {
          this.bytes[this.size++] = value >= 0 ? WHOLE : NEGATIVE;
          this.whole(Math.abs(value));
        }
      } else {
        this.bytes[this.size++] = DOUBLE;
        double[0] = value;
        for (let k = 0; k < 8; k++) this.bytes[this.size++] = doubleBytes[k];
      }
    } else if (typeof value === "string") {
      this.bytes[this.size++] = TEXT;
      this.text(value);
    } else if (value === true || value === false) this.bytes[this.size++] = value ? TRUE : FALSE;
    else if (value === null) this.bytes[this.size++] = NULL;
    else {
      this.bytes[this.size++] = JSON_TEXT;
      this.text(JSON.stringify(value));
    }
  }

  private room(more: number): void {
    if (this.size + more <= this.bytes.length) return;
    const wider = new Uint8Array(Math.max(this.bytes.length * 2, this.size + more));
    wider.set(this.bytes);
    this.bytes = wider;
  }
}

/** Ids that were read lately: types, rarities, stats and stations come again in record after record. */
const KNOWN = 4096;
const knownHigh = new Uint32Array(KNOWN);
const knownLow = new Uint32Array(KNOWN);
const known: Id[] = Array.from({ length: KNOWN }, () => idFrom(0, 0));

/** Reads what a writer wrote, in the same order. */
export class ByteReader {
  private bytes: Uint8Array = new Uint8Array(0);
  private at = 0;

  /** Reads on from a place. */
  from(bytes: Uint8Array, at = 0): this {
    this.bytes = bytes;
    this.at = at;
    return this;
  }

  whole(): number {
    let byte = this.bytes[this.at++];
    if (byte < 128) return byte;
    let n = byte - 128;
    for (let worth = 128; ; worth *= 128) {
      byte = this.bytes[this.at++];
      if (byte < 128) return n + byte * worth;
      n += (byte - 128) * worth;
    }
  }

  private fixed(): number {
    const { bytes, at } = this;
    this.at += 4;
    return (bytes[at] | (bytes[at + 1] << 8) | (bytes[at + 2] << 16) | (bytes[at + 3] << 24)) >>> 0;
  }

  id(): Id | null {
    const high = this.fixed();
    if (high === NO_ID) return null;
    const low = this.fixed();
    const place = (high ^ low) & (KNOWN - 1);
    if (knownHigh[place] === high && knownLow[place] === low) return known[place];
    knownHigh[place] = high;
    knownLow[place] = low;
    known[place] = idFrom(high, low);
    return known[place];
  }

  text(): string {
    const length = this.whole();
    const size = length >> 1;
    const { bytes } = this;
    const codes: number[] = [];
    let at = this.at;
    // Calls take only so many arguments.
    let text = "";
    for (let left = size; left > 0; left -= PIECE, codes.length = 0) {
      const many = Math.min(left, PIECE);
      if (length & 1) for (let k = 0; k < many; k++, at += 2) codes.push(bytes[at] + bytes[at + 1] * 256);
      else for (let k = 0; k < many; k++) codes.push(bytes[at++]);
      text += String.fromCharCode(...codes);
    }
    this.at = at;
    return text;
  }

  value(): unknown {
    const sort = this.bytes[this.at++];
    if (sort >= SMALL) return sort - SMALL;
    if (sort === TEXT) return this.text();
    if (sort === NULL) return null;
    if (sort === DOUBLE) {
      for (let k = 0; k < 8; k++) doubleBytes[k] = this.bytes[this.at++];
      return double[0];
    }
    if (sort === WHOLE) return this.whole();
    if (sort === NEGATIVE) return -this.whole();
    if (sort === JSON_TEXT) return JSON.parse(this.text());
    return sort === TRUE;
  }
}
const PIECE = 4096;

/** So many values as were said before them. */
export function several<T>(from: ByteReader, each: () => T): T[] {
  const values: T[] = [];
  for (let left = from.whole(); left > 0; left--) values.push(each());
  return values;
}
