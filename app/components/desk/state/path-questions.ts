import type { PathRequest } from "~/workers/path-worker";

interface Question {
  key: string;
  request: PathRequest;
}

/** What the worker is asked: of each shot one question at a time, and then the newest of those that have come up. */
export class PathQuestions {
  private readonly byShot = new Map<string, { newest: Question; underWay: Question | null }>();

  /** Takes a question, which `key` tells from others; gives what is to be asked now, if anything. */
  ask(key: string, request: PathRequest): PathRequest | null {
    const asked = this.byShot.get(request.shotId);
    if (asked?.newest.key === key) return null;
    const newest = { key, request };
    this.byShot.set(request.shotId, { newest, underWay: asked?.underWay ?? newest });
    return asked?.underWay ? null : request;
  }

  /**
   * Takes note of an answer. Gives what is to be asked next of the shot, and whether the answer is of any use: that for
   * another version is not; that for a key that has been dragged on since shows where it goes.
   */
  answered(shotId: string): { next: PathRequest | null; isOfUse: boolean } {
    const asked = this.byShot.get(shotId);
    if (!asked?.underWay) return { next: null, isOfUse: false };
    const { newest, underWay } = asked;
    const isNewest = newest === underWay;
    this.byShot.set(shotId, { newest, underWay: isNewest ? null : newest });
    return { next: isNewest ? null : newest.request, isOfUse: newest.request.target === underWay.request.target };
  }

  /** Whether there are answers to come. */
  get areOpen(): boolean {
    return [...this.byShot.values()].some(({ underWay }) => underWay);
  }

  clear(): void {
    this.byShot.clear();
  }
}
