import { reasonsTexts } from "../../texts/reasons";

const t = reasonsTexts.movement;

/** The movements of a window in a shot. */
export const MOVEMENTS = ["still", "glide", "chase"] as const;
export type Movement = (typeof MOVEMENTS)[number];

/**
 * A movement is a set of weights and limits of one program. Lengths are in window lengths (the window's width for x, its
 * height for y), times in seconds, so that they mean the same at every size and rate.
 */
export interface MovementWeights {
  /** Cost of one window length of travel: the gain needed before the window moves at all. */
  travel: number;
  /** Cost of a change of speed by one length/s. */
  acceleration: number;
  /** Cost of a change of acceleration by one length/s²: what makes starts and stops soft. */
  jerk: number;
  /** Cost per second of one length between the subject and its zone. */
  away: number;
  /** Half the width of that zone. */
  zone: number;
  /** Hardly more than nothing: where all else is equal, the subject's own place decides. */
  tie: number;
  /** Cost per second of one length of the face, or another subject, cut off. */
  cut: number;
  /** The same for the rest of a person. */
  bodyCut: number;
  /** The same for protected areas: less than a face, more than anything else. */
  protect: number;
  /** Limits in lengths/s and lengths/s². */
  maxSpeed: number;
  maxAcceleration: number;
}

const GLIDE: MovementWeights = {
  travel: 1,
  acceleration: 0.45,
  jerk: 0.36,
  away: 1.4,
  zone: 0.14,
  tie: 0.04,
  cut: 150,
  bodyCut: 4,
  protect: 20,
  maxSpeed: 2.2,
  maxAcceleration: 6,
};

export const MOVEMENT_WEIGHTS: Record<Movement, MovementWeights> = {
  still: { ...GLIDE, maxSpeed: 0, maxAcceleration: 0 },
  glide: GLIDE,
  chase: {
    ...GLIDE,
    travel: 0.15,
    acceleration: 0.1,
    jerk: 0.025,
    away: 5,
    zone: 0.04,
    maxSpeed: 4,
    maxAcceleration: 16,
  },
};

/** Factor on the cost of movement at the calmest setting. */
const CALMEST = 6;

/**
 * A movement's weights, made calmer or closer by one continuous factor on all costs of movement.
 * @param calm 0 to 100, 50 for the movement's own
 */
export function weightsFor(movement: Movement, calm: number): MovementWeights {
  const weights = MOVEMENT_WEIGHTS[movement];
  const factor = CALMEST ** ((calm - 50) / 50);
  return {
    ...weights,
    travel: factor * weights.travel,
    acceleration: factor * weights.acceleration,
    jerk: factor * weights.jerk,
    zone: Math.sqrt(factor) * weights.zone,
  };
}

/** Name and description of each movement, for the interface. */
export const MOVEMENT_TEXT: Record<Movement, { name: string; description: string }> = {
  still: { name: t.still, description: t.onePlaceForTheWhole },
  glide: { name: t.glide, description: t.longHoldsAndFewEased },
  chase: { name: t.chase, description: t.staysCloseToTheSubject },
};
