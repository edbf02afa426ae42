/** Textures in which a detector finds faces: leaves, rocks or lights out of focus. */
import type { Size } from "../../geometry/box";
import { type Detection, LARGE_FACE, sureFaceScore } from "./detection";

/** Number of large uncertain faces in one picture that are a texture of the background. */
const PATTERN = 3;

/**
 * Faces without those found in a texture. A large face has enough detail to be certain, even out of focus and in the dark;
 * where several are uncertain, all of them are alike.
 * @param faces all that were found in a picture, including weak ones
 */
export function withoutPatterns<Face extends Detection>(faces: Face[], picture: Size): Face[] {
  const isUnsure = ({ box, score }: Face): boolean => {
    const height = box.height / picture.height;
    return height > LARGE_FACE && score < sureFaceScore(height);
  };
  return faces.filter(isUnsure).length < PATTERN ? faces : faces.filter((face) => !isUnsure(face));
}
