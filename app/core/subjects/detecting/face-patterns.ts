/** Textures in which a detector sees faces: leaves, rocks or lights out of focus. */
import type { Size } from "../../geometry/box";
import { type Detection, LARGE_FACE, sureFaceScore } from "./detection";

/** So many large faces in one picture, none of which is sure, are the texture of what is behind. */
const PATTERN = 3;

/**
 * Faces without those that a texture is taken for. Of a large face there is so much to be seen that it is sure of itself,
 * also out of focus and in the dark; where several are not, they are all alike.
 *
 * @param faces all that were found in a picture, weak ones as well
 */
export function withoutPatterns<Face extends Detection>(faces: Face[], picture: Size): Face[] {
  const isUnsure = ({ box, score }: Face): boolean => {
    const height = box.height / picture.height;
    return height > LARGE_FACE && score < sureFaceScore(height);
  };
  return faces.filter(isUnsure).length < PATTERN ? faces : faces.filter((face) => !isUnsure(face));
}
