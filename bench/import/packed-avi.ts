/** MPEG-4 in AVI as early encoders wrote it: a B-frame lies in the chunk of the picture that it was made from. */
const START = Buffer.from([0, 0, 1]);
const USER_DATA = Buffer.concat([START, Buffer.from([0xb2]), Buffer.from("DivX503b1393p\0")]);
const VOP = 0xb6;
/** Stands where the B-frame would have been: a picture that is not coded. */
const NOT_CODED = Buffer.concat([START, Buffer.from([VOP, 0x56, 0xff, 0xff])]);

interface Chunk {
  id: string;
  data: Buffer;
}

function chunksIn(data: Buffer): Chunk[] {
  const chunks: Chunk[] = [];
  for (let at = 0; at + 8 <= data.length;) {
    const length = data.readUInt32LE(at + 4);
    chunks.push({ id: data.toString("latin1", at, at + 4), data: data.subarray(at + 8, at + 8 + length) });
    at += 8 + length + (length % 2);
  }
  return chunks;
}

function written({ id, data }: Chunk): Buffer {
  const head = Buffer.alloc(8, id, "latin1");
  head.writeUInt32LE(data.length, 4);
  return Buffer.concat([head, data, Buffer.alloc(data.length % 2)]);
}

const isPicture = ({ id }: Chunk): boolean => id === "00dc";
const vopAt = (data: Buffer): number => data.indexOf(Buffer.concat([START, Buffer.from([VOP])]));
/** ISO/IEC 14496-2, 6.2.5: the first two bits are the kind of picture, 2 is a B-frame. */
const isB = ({ data }: Chunk): boolean => data[vopAt(data) + 4]! >> 6 === 2;

/**
 * Packs the B-frames of a film, which has one of them after another picture at the most.
 *
 * @param avi MPEG-4 in AVI, one picture a chunk
 */
export function packed(avi: Buffer): Buffer {
  const parts = chunksIn(avi.subarray(12));
  const isMovie = ({ id, data }: Chunk) => id === "LIST" && data.toString("latin1", 0, 4) === "movi";
  const chunks = chunksIn(parts.find(isMovie)!.data.subarray(4));
  const pictures = chunks.filter(isPicture);
  const all = pictures.map((picture, i) => {
    const next = pictures[i + 1];
    if (i === 0) {
      const at = vopAt(picture.data);
      return Buffer.concat([picture.data.subarray(0, at), USER_DATA, picture.data.subarray(at)]);
    }
    if (isB(picture)) return NOT_CODED;
    return next && isB(next) ? Buffer.concat([picture.data, next.data]) : picture.data;
  });
  const repacked = chunks.map((chunk) => (isPicture(chunk) ? { ...chunk, data: all.shift()! } : chunk));
  let at = 4;
  const index = repacked.map(({ id, data }) => {
    const entry = Buffer.alloc(16, id, "latin1");
    entry.writeUInt32LE(id !== "00dc" || (data[vopAt(data) + 4]! >> 6 === 0 && data !== NOT_CODED) ? 0x10 : 0, 4);
    entry.writeUInt32LE(at, 8);
    entry.writeUInt32LE(data.length, 12);
    at += 8 + data.length + (data.length % 2);
    return entry;
  });
  const movie = { id: "LIST", data: Buffer.concat([Buffer.from("movi"), ...repacked.map(written)]) };
  const whole = parts.flatMap((part) => {
    if (isMovie(part)) return movie;
    return part.id === "idx1" ? { ...part, data: Buffer.concat(index) } : part;
  });
  return written({ id: "RIFF", data: Buffer.concat([Buffer.from("AVI "), ...whole.map(written)]) });
}
